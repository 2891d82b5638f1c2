package org.abletwine.formats.workbook;

import com.fasterxml.aalto.stax.InputFactoryImpl;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;
import org.abletwine.table.DataException;
import org.jspecify.annotations.Nullable;

/**
 * Goes through the XML of a part. Names are told without their prefixes: the two editions of the
 * same format differ in these alone. Document types and entities of one's own are not followed, so
 * nothing outside the part is ever read. Used by one thread.
 */
final class Xml implements AutoCloseable {
  private static final XMLInputFactory FACTORY = factory();

  private final Archive archive;
  private final String part;
  private final InputStream bytes;
  private final XMLStreamReader in;
  private int event;

  private static XMLInputFactory factory() {
    XMLInputFactory factory = new InputFactoryImpl();
    factory.setProperty(XMLInputFactory.SUPPORT_DTD, false);
    factory.setProperty(XMLInputFactory.IS_SUPPORTING_EXTERNAL_ENTITIES, false);
    factory.setProperty(XMLInputFactory.IS_COALESCING, true);
    return factory;
  }

  Xml(Archive archive, String part) {
    this.archive = archive;
    this.part = part;
    this.bytes = archive.open(part);
    try {
      this.in = FACTORY.createXMLStreamReader(bytes);
    } catch (XMLStreamException | RuntimeException e) {
      throw wrong(e);
    }
  }

  /**
   * Goes on to the next beginning or end of an element, or text.
   *
   * @return false at the end of the part
   */
  boolean next() {
    try {
      do {
        if (!in.hasNext()) {
          finish();
          return false;
        }
        event = in.next();
        if (event == XMLStreamConstants.ENTITY_REFERENCE || event == XMLStreamConstants.DTD) {
          throw archive.damaged(
              "its part " + part + " declares or uses entities of its own, which no table needs",
              null);
        }
      } while (event != XMLStreamConstants.START_ELEMENT
          && event != XMLStreamConstants.END_ELEMENT
          && !text());
      return true;
    } catch (DataException e) {
      throw e;
    } catch (XMLStreamException | RuntimeException e) {
      throw wrong(e);
    }
  }

  /** Reads what is left, so that the part is checked to its end. */
  private void finish() {
    try {
      bytes.transferTo(OutputStream.nullOutputStream());
      archive.requireSame();
    } catch (IOException e) {
      throw wrong(e);
    }
  }

  private DataException wrong(Exception e) {
    Throwable cause = e;
    while (cause != null && !(cause instanceof DataException)) {
      cause = cause.getCause();
    }
    if (cause instanceof DataException told) {
      return told;
    }
    String message = String.valueOf(e.getMessage()).replaceAll("\\s*\\n.*", "").strip();
    return archive.damaged("its part " + part + " cannot be read (" + message + ")", e);
  }

  boolean start() {
    return event == XMLStreamConstants.START_ELEMENT;
  }

  boolean end() {
    return event == XMLStreamConstants.END_ELEMENT;
  }

  boolean text() {
    return event == XMLStreamConstants.CHARACTERS
        || event == XMLStreamConstants.CDATA
        || event == XMLStreamConstants.SPACE;
  }

  /** Returns the name of the element that begins or ends here, without prefix. */
  String name() {
    return in.getLocalName();
  }

  boolean starts(String element) {
    return start() && element.equals(in.getLocalName());
  }

  boolean ends(String element) {
    return end() && element.equals(in.getLocalName());
  }

  /** Adds the text that stands here to a cell. */
  void appendTo(SheetRow row) {
    try {
      row.append(in.getTextCharacters(), in.getTextStart(), in.getTextLength());
    } catch (DataException e) {
      throw e;
    } catch (RuntimeException e) { // what is lazily parsed fails here
      throw wrong(e);
    }
  }

  /** An attribute of the element that begins here; null when it has none of that name. */
  @Nullable String attribute(String name) {
    int count = in.getAttributeCount();
    for (int i = 0; i < count; i++) {
      if (in.getAttributeLocalName(i).equals(name)) {
        return in.getAttributeValue(i);
      }
    }
    return null;
  }

  int attributes() {
    return in.getAttributeCount();
  }

  String attributeName(int at) {
    return in.getAttributeLocalName(at);
  }

  String attributeValue(int at) {
    return in.getAttributeValue(at);
  }

  /**
   * A whole number that an attribute holds.
   *
   * @param name the attribute
   * @param otherwise what it is when there is none
   * @throws DataException when it holds something else
   */
  int number(String name, int otherwise) {
    String value = attribute(name);
    return value == null ? otherwise : number(value);
  }

  int number(String value) {
    int number = 0;
    boolean valid = !value.isEmpty() && value.length() < 10;
    for (int i = 0; i < value.length() && valid; i++) {
      char c = value.charAt(i);
      valid = c >= '0' && c <= '9';
      number = number * 10 + c - '0';
    }
    if (!valid) {
      throw archive.damaged(
          "its part " + part + " holds \"" + value + "\" where a whole number belongs", null);
    }
    return number;
  }

  /** Goes past the element that begins here, with all that is in it. */
  void skip() {
    int depth = 1;
    while (depth > 0 && next()) {
      depth += start() ? 1 : end() ? -1 : 0;
    }
  }

  /** The element that is read must end: the part is cut off otherwise. */
  void require(boolean more) {
    if (!more) {
      throw archive.damaged("its part " + part + " ends too early", null);
    }
  }

  @Override
  public void close() {
    try {
      in.close();
      bytes.close();
    } catch (XMLStreamException | IOException e) {
      // reading is over; nothing depends on the close
    }
  }
}
