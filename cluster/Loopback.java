import java.io.IOException;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** For cluster/local: prints a port that nobody uses, or waits until a JobManager has so many slots. */
final class Loopback {
  private static final Pattern SLOTS = Pattern.compile("\"slots-available\":(\\d+)");
  private static final int TRIES = 300;
  private static final int PAUSE = 100;

  private Loopback() {}

  public static void main(String[] args) throws IOException, InterruptedException {
    if (args.length == 0) {
      try (ServerSocket free = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
        System.out.println(free.getLocalPort());
      }
      return;
    }
    URI overview = URI.create("http://127.0.0.1:" + args[0] + "/overview");
    HttpClient client = HttpClient.newHttpClient();
    for (int tries = 0; tries < TRIES; tries++) {
      if (slots(client, overview) >= Integer.parseInt(args[1])) {
        System.out.println("ready");
        return;
      }
      Thread.sleep(PAUSE);
    }
  }

  private static int slots(HttpClient client, URI overview) throws InterruptedException {
    try {
      HttpRequest request = HttpRequest.newBuilder(overview).build();
      Matcher slots = SLOTS.matcher(client.send(request, HttpResponse.BodyHandlers.ofString()).body());
      return slots.find() ? Integer.parseInt(slots.group(1)) : 0;
    } catch (IOException e) {
      return 0; // not there yet
    }
  }
}
