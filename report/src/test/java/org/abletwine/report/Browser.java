package org.abletwine.report;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Assumptions;
import org.openqa.selenium.chrome.ChromeDriver;
import org.openqa.selenium.chrome.ChromeDriverService;
import org.openqa.selenium.chrome.ChromeOptions;
import org.openqa.selenium.logging.LogEntry;
import org.openqa.selenium.logging.LogType;
import org.openqa.selenium.logging.LoggingPreferences;

/** A browser without a window. Without one on this machine its tests are skipped. */
final class Browser implements AutoCloseable {
  private static final Path CHROMIUM = Path.of("/usr/bin/chromium");
  private static final Path DRIVER = Path.of("/usr/bin/chromedriver");

  private static final String SKIPPED =
      "no chromium and chromedriver on this machine: tests in a browser are skipped";

  private final ChromeDriver driver;

  private Browser(ChromeDriver driver) {
    this.driver = driver;
  }

  /**
   * @param downloads where saved files go
   * @param scripts whether pages may run scripts
   */
  static Browser open(Path downloads, boolean scripts) {
    if (!Files.isExecutable(CHROMIUM) || !Files.isExecutable(DRIVER)) {
      System.err.println(SKIPPED);
    }
    Assumptions.assumeTrue(Files.isExecutable(CHROMIUM) && Files.isExecutable(DRIVER), SKIPPED);
    ChromeOptions options = new ChromeOptions();
    options.setBinary(CHROMIUM.toFile());
    options.addArguments(
        "--headless=new",
        "--no-sandbox",
        "--disable-gpu",
        "--disable-quic",
        "--no-first-run",
        "--disable-background-networking",
        "--disable-component-update",
        "--disable-sync",
        "--window-size=1280,800");
    options.setExperimentalOption(
        "prefs",
        Map.of(
            "download.default_directory",
            downloads.toString(),
            "profile.managed_default_content_settings.javascript",
            scripts ? 1 : 2));
    LoggingPreferences logs = new LoggingPreferences();
    logs.enable(LogType.BROWSER, java.util.logging.Level.ALL);
    logs.enable(LogType.PERFORMANCE, java.util.logging.Level.ALL);
    options.setCapability("goog:loggingPrefs", logs);
    ChromeDriverService service =
        new ChromeDriverService.Builder().usingDriverExecutable(DRIVER.toFile()).build();
    return new Browser(new ChromeDriver(service, options));
  }

  ChromeDriver driver() {
    return driver;
  }

  Object script(String text, Object... arguments) {
    return driver.executeScript(text, arguments);
  }

  /** What the browser complained about. */
  List<String> complaints() {
    return driver.manage().logs().get(LogType.BROWSER).getAll().stream()
        .map(LogEntry::getMessage)
        .toList();
  }

  /** Addresses that were asked for, other than the page and what is in it. */
  List<String> requests(String page) {
    List<String> asked = new ArrayList<>();
    for (LogEntry entry : driver.manage().logs().get(LogType.PERFORMANCE)) {
      String message = entry.getMessage();
      if (message.contains("\"Network.requestWillBeSent\"")) {
        String url = message.replaceFirst("(?s).*\"request\":\\{.*?\"url\":\"(.*?)\".*", "$1");
        if (!url.startsWith("data:") && !url.startsWith("blob:") && !url.equals(page)) {
          asked.add(url);
        }
      }
    }
    return asked;
  }

  /** What an accessibility checker finds wrong, a line each. */
  @SuppressWarnings("unchecked")
  List<String> inaccessible() throws IOException {
    try (InputStream in =
        Browser.class.getResourceAsStream(
            "/META-INF/resources/webjars/axe-core/4.6.3/axe.min.js")) {
      if (in == null) {
        throw new IOException("the accessibility checker is not on the class path");
      }
      script(new String(in.readAllBytes(), StandardCharsets.UTF_8));
    }
    Object found =
        driver.executeAsyncScript(
            "const done = arguments[arguments.length - 1];"
                + "axe.run().then(r => done(r.violations.map(v => v.id + ': ' + v.help + ' at '"
                + " + v.nodes.slice(0, 3).map(n => n.html.slice(0, 160)).join(' and '))),"
                + " e => done(['failed: ' + e]));");
    return (List<String>) found;
  }

  /** Shows the page as on a light or a dark screen. */
  void scheme(String scheme) {
    driver.executeCdpCommand(
        "Emulation.setEmulatedMedia",
        Map.of(
            "features",
            List.of(
                Map.of("name", "prefers-color-scheme", "value", scheme),
                Map.of("name", "prefers-reduced-motion", "value", "reduce"))));
  }

  @Override
  public void close() {
    driver.quit();
  }
}
