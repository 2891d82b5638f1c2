package org.abletwine.parquet;

import com.github.luben.zstd.Zstd;
import io.airlift.compress.lz4.Lz4Decompressor;
import io.airlift.compress.snappy.SnappyCompressor;
import io.airlift.compress.snappy.SnappyDecompressor;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.util.Arrays;
import java.util.zip.GZIPInputStream;
import org.apache.parquet.format.CompressionCodec;

/** Packs and unpacks pages. Used by one thread. */
final class Codec {
  private final SnappyDecompressor snappy = new SnappyDecompressor();
  private final SnappyCompressor packer = new SnappyCompressor();
  private final Lz4Decompressor lz4 = new Lz4Decompressor();

  /**
   * Unpacks.
   *
   * @param size how many bytes come out
   * @throws IllegalArgumentException when the bytes are damaged, or packed in a way not known
   */
  byte[] unpack(CompressionCodec codec, byte[] bytes, int from, int length, int size) {
    byte[] out = codec == CompressionCodec.UNCOMPRESSED ? new byte[0] : new byte[size];
    int got;
    try {
      got =
          switch (codec) {
            case UNCOMPRESSED -> {
              out = Arrays.copyOfRange(bytes, from, from + length);
              yield length;
            }
            case SNAPPY -> snappy.decompress(bytes, from, length, out, 0, size);
            case LZ4_RAW -> lz4.decompress(bytes, from, length, out, 0, size);
            case ZSTD -> (int) Zstd.decompressByteArray(out, 0, size, bytes, from, length);
            case GZIP -> gzip(bytes, from, length, out);
            case LZO, BROTLI, LZ4 ->
                throw new IllegalArgumentException(
                    "it is packed with "
                        + codec
                        + "; write it with snappy, gzip, zstd or lz4_raw, or unpacked");
          };
    } catch (IOException | IndexOutOfBoundsException e) {
      throw new IllegalArgumentException("a page cannot be unpacked: " + e.getMessage(), e);
    }
    if (got != size) {
      throw new IllegalArgumentException(
          "a page holds " + got + " bytes where " + size + " are announced");
    }
    return out;
  }

  private static int gzip(byte[] bytes, int from, int length, byte[] out) throws IOException {
    try (InputStream in = new GZIPInputStream(new ByteArrayInputStream(bytes, from, length))) {
      int got = in.readNBytes(out, 0, out.length);
      return in.read() < 0 ? got : got + 1;
    }
  }

  /** Packs with snappy, which every program reads. */
  byte[] pack(byte[] bytes) {
    byte[] out = new byte[packer.maxCompressedLength(bytes.length)];
    return Arrays.copyOf(out, packer.compress(bytes, 0, bytes.length, out, 0, out.length));
  }
}
