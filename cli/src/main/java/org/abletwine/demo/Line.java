package org.abletwine.demo;

import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;

/** Writes comma-separated rows fast enough for a hundred million of them. */
final class Line implements AutoCloseable {
  private final OutputStream out;
  private byte[] buffer = new byte[1 << 16];
  private int used;
  private boolean first = true;
  private long rows;

  Line(Path file, String header) throws IOException {
    out = Files.newOutputStream(file);
    raw(header);
    end();
    rows = 0;
  }

  long rows() {
    return rows;
  }

  /** A cell of plain text that needs no quotes. */
  Line cell(String text) {
    separator();
    raw(text);
    return this;
  }

  /** A cell of any text, quoted when it must be. */
  Line text(String text) {
    boolean quote = text.indexOf(',') >= 0 || text.indexOf('"') >= 0 || text.indexOf('\n') >= 0;
    return cell(quote ? '"' + text.replace("\"", "\"\"") + '"' : text);
  }

  /** A whole number, filled up with leading zeros to a width. */
  Line number(long value, int width) {
    separator();
    digits(value, width);
    return this;
  }

  /** A grower number: digits and a check letter. */
  Line grower(long number, int width) {
    number(number, width);
    buffer[used++] = (byte) WendleVale.checkLetter(number);
    return this;
  }

  /** A number with one decimal. */
  Line tenths(long tenths) {
    separator();
    digits(tenths / 10, 1);
    buffer[used++] = '.';
    buffer[used++] = (byte) ('0' + tenths % 10);
    return this;
  }

  private void separator() {
    if (used + 64 > buffer.length) {
      buffer = Arrays.copyOf(buffer, buffer.length * 2);
    }
    if (first) {
      first = false;
    } else {
      buffer[used++] = ',';
    }
  }

  private void digits(long value, int width) {
    int count = width;
    for (long rest = value; count < 19 && rest >= pow10(count); ) {
      count++;
    }
    long rest = value;
    for (int i = used + count - 1; i >= used; i--) {
      buffer[i] = (byte) ('0' + rest % 10);
      rest /= 10;
    }
    used += count;
  }

  private static long pow10(int n) {
    long power = 1;
    for (int i = 0; i < n; i++) {
      power *= 10;
    }
    return power;
  }

  private void raw(String text) {
    int length = text.length();
    if (used + 3 * length + 64 > buffer.length) {
      buffer = Arrays.copyOf(buffer, buffer.length * 2 + 3 * length);
    }
    for (int i = 0; i < length; i++) {
      char c = text.charAt(i);
      if (c >= 0x80) {
        byte[] bytes = text.substring(i).getBytes(StandardCharsets.UTF_8);
        System.arraycopy(bytes, 0, buffer, used, bytes.length);
        used += bytes.length;
        return;
      }
      buffer[used++] = (byte) c;
    }
  }

  void end() throws IOException {
    buffer[used++] = '\n';
    first = true;
    rows++;
    if (used > buffer.length / 2) {
      out.write(buffer, 0, used);
      used = 0;
    }
  }

  @Override
  public void close() throws IOException {
    out.write(buffer, 0, used);
    out.close();
  }
}
