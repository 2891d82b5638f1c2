package org.abletwine.parquet;

import com.github.luben.zstd.ZstdInputStream;
import com.github.luben.zstd.ZstdOutputStream;
import io.airlift.compress.lz4.Lz4Compressor;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.util.Arrays;
import java.util.zip.GZIPOutputStream;
import org.apache.parquet.bytes.BytesInput;
import org.apache.parquet.compression.CompressionCodecFactory;
import org.apache.parquet.hadoop.metadata.CompressionCodecName;
import org.xerial.snappy.Snappy;

/** Packs pages for the other library, which would want a whole installation for that. */
final class OtherCodecs implements CompressionCodecFactory {

  private record Packer(CompressionCodecName codec) implements BytesInputCompressor {
    @Override
    public BytesInput compress(BytesInput input) throws IOException {
      byte[] bytes = input.toInputStream().readAllBytes();
      ByteArrayOutputStream out = new ByteArrayOutputStream();
      switch (codec) {
        case SNAPPY -> out.writeBytes(Snappy.compress(bytes));
        case GZIP -> {
          try (GZIPOutputStream gzip = new GZIPOutputStream(out)) {
            gzip.write(bytes);
          }
        }
        case ZSTD -> {
          try (ZstdOutputStream zstd = new ZstdOutputStream(out)) {
            zstd.write(bytes);
          }
        }
        case LZ4_RAW -> {
          Lz4Compressor lz4 = new Lz4Compressor();
          byte[] into = new byte[lz4.maxCompressedLength(bytes.length)];
          int length = lz4.compress(bytes, 0, bytes.length, into, 0, into.length);
          out.writeBytes(Arrays.copyOf(into, length));
        }
        default -> out.writeBytes(bytes);
      }
      return BytesInput.from(out.toByteArray());
    }

    @Override
    public CompressionCodecName getCodecName() {
      return codec;
    }

    @Override
    public void release() {}
  }

  private record Unpacker(CompressionCodecName codec) implements BytesInputDecompressor {
    @Override
    public BytesInput decompress(BytesInput bytes, int size) throws IOException {
      byte[] packed = bytes.toInputStream().readAllBytes();
      return BytesInput.from(
          switch (codec) {
            case SNAPPY -> Snappy.uncompress(packed);
            case ZSTD -> new ZstdInputStream(new ByteArrayInputStream(packed)).readAllBytes();
            default -> packed;
          });
    }

    @Override
    public void decompress(ByteBuffer input, int packed, ByteBuffer output, int size) {
      throw new UnsupportedOperationException();
    }

    @Override
    public void release() {}
  }

  @Override
  public BytesInputCompressor getCompressor(CompressionCodecName codec) {
    return new Packer(codec);
  }

  @Override
  public BytesInputDecompressor getDecompressor(CompressionCodecName codec) {
    return new Unpacker(codec);
  }

  @Override
  public void release() {}
}
