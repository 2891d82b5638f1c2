package org.abletwine.cli;

import java.io.IOException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.abletwine.audit.RecordFinder;
import org.abletwine.audit.RecordFinder.Choice;
import org.abletwine.plan.tell.Words;
import org.abletwine.table.DataException;
import org.jline.reader.EndOfFileException;
import org.jline.reader.LineReader;
import org.jline.reader.LineReaderBuilder;
import org.jline.reader.UserInterruptException;
import org.jline.reader.impl.completer.StringsCompleter;
import org.jline.terminal.Terminal;
import org.jline.terminal.TerminalBuilder;

/** Asks for a key part by part, each narrowed by those before; the tabulator completes. */
final class FindDialogue {
  private static final int OFFERED = 8;

  private final RecordFinder finder;
  private final List<String> keys;

  FindDialogue(RecordFinder finder, List<String> keys) {
    this.finder = finder;
    this.keys = keys;
  }

  Map<String, String> ask() {
    try (Terminal terminal = TerminalBuilder.builder().system(true).build()) {
      return ask(terminal);
    } catch (IOException e) {
      throw new DataException("cannot ask on this terminal; state COLUMN=VALUE instead", e);
    }
  }

  /** Asks on a terminal; an empty answer leaves the part open. */
  Map<String, String> ask(Terminal terminal) {
    Map<String, String> answers = new LinkedHashMap<>();
    for (String column : keys) {
      List<Choice> choices =
          finder.find(answers, List.of(column), 0).choices().getOrDefault(column, List.of());
      List<String> values = new ArrayList<>();
      choices.forEach(
          choice -> {
            if (choice.value() != null) {
              values.add(choice.value().strip());
            }
          });
      if (values.size() == 1 && !answers.isEmpty()) {
        terminal.writer().println("  " + column + " can only be " + Words.shown(values.get(0)));
        terminal.flush();
        answers.put(column, values.get(0));
        continue;
      }
      terminal
          .writer()
          .println(
              "  "
                  + Words.count(values.size())
                  + " values, such as "
                  + Words.shown(
                      String.join(", ", values.subList(0, Math.min(OFFERED, values.size())))));
      LineReader reader =
          LineReaderBuilder.builder()
              .terminal(terminal)
              .completer(new StringsCompleter(values))
              .build();
      String answer;
      try {
        answer = reader.readLine(Words.shown(column) + ": ");
      } catch (UserInterruptException | EndOfFileException e) {
        break;
      }
      if (!answer.isBlank()) {
        answers.put(column, answer);
      }
    }
    return answers;
  }
}
