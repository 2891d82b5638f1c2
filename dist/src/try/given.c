/* In place of Java: prints what it is given, and ends with the status that is asked for. */
#include <stdio.h>
#include <stdlib.h>

int main(int count, char **given) {
  const char *status = getenv("GIVEN_STATUS");
  for (int i = 0; i < count; i++) {
    printf("[%s]\n", given[i]);
  }
  return status ? atoi(status) : 0;
}
