package org.abletwine.report;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import org.abletwine.plan.PlannedRun;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.openqa.selenium.By;
import org.openqa.selenium.Dimension;
import org.openqa.selenium.Keys;
import org.openqa.selenium.WebElement;
import org.openqa.selenium.support.ui.WebDriverWait;

/** The page in a real browser: what a reader can do with it, and what it must not do. */
class BrowserTest {
  @TempDir private static Path folder;
  private static Sample sample;
  private static Browser browser;
  private static String address;

  @BeforeAll
  static void open() throws IOException {
    sample = Sample.in(folder);
    sample.run();
    address = sample.page().toUri().toString();
    browser = Browser.open(folder, true);
  }

  @AfterAll
  static void close() {
    if (browser != null) {
      browser.close();
    }
  }

  @BeforeEach
  void load() {
    browser.driver().manage().window().setSize(new Dimension(1280, 800));
    browser.scheme("light");
    browser.driver().get(address);
  }

  private static WebElement element(String css) {
    return browser.driver().findElement(By.cssSelector(css));
  }

  private static List<String> texts(String css) {
    return browser.driver().findElements(By.cssSelector(css)).stream()
        .filter(WebElement::isDisplayed)
        .map(WebElement::getText)
        .toList();
  }

  @Test
  void nothingIsAskedForAndNothingComplainedAbout() {
    browser.requests(address);
    browser.complaints();
    browser.driver().get(address);
    browser.script("window.scrollTo(0, document.body.scrollHeight)");
    assertThat(browser.requests(address)).isEmpty();
    assertThat(browser.complaints()).isEmpty();
  }

  @Test
  void noCellRunsAsAScript() {
    assertThat(browser.script("return window.hit")).isNull();
    assertThat(browser.script("return document.images.length")).isEqualTo(2L);
    assertThat(element("h1").getText())
        .isEqualTo("Intake <i>of</i> <script>window.hit = 4</script>");
    assertThat(texts("#worst td")).contains(Sample.SCRIPT, Sample.ATTRIBUTE);
    assertThat(texts("#worst td"))
        .contains("Merow <U+202E>dlog<U+202C> <b>bold</b> &amp; <U+0007>bell");
  }

  @Test
  void anInjectedScriptIsRefusedByThePagesOwnPolicy() {
    browser.script(
        "const s = document.createElement('script'); s.textContent = 'window.hit = 9';"
            + " document.body.appendChild(s)");
    assertThat(browser.script("return window.hit")).isNull();
    browser.complaints(); // of exactly this
  }

  @Test
  void aTableIsSortedByItsHeadings() {
    String column = "#groups-1 tbody td:nth-child(3)";
    WebElement heading = element("#groups-1 th:nth-child(3)");
    heading.findElement(By.tagName("button")).click();
    List<Integer> up = texts(column).stream().map(Integer::valueOf).toList();
    assertThat(up).isSorted().hasSizeGreaterThan(3);
    assertThat(heading.getAttribute("aria-sort")).isEqualTo("ascending");
    heading.findElement(By.tagName("button")).click();
    List<Integer> down = texts(column).stream().map(Integer::valueOf).toList();
    assertThat(down).isSortedAccordingTo(java.util.Comparator.reverseOrder());
    assertThat(heading.getAttribute("aria-sort")).isEqualTo("descending");
    assertThat(texts("#groups-1 tfoot td")).contains("all");
  }

  @Test
  void aTableIsFilteredByWhatIsTyped() {
    int all = texts("#groups-1 tbody tr").size();
    element("#groups-1-only").sendKeys("kestrel");
    assertThat(texts("#groups-1 tbody td:first-child")).isNotEmpty().containsOnly("Kestrel");
    assertThat(element("#groups-1-only").findElement(By.xpath("../..")).getText())
        .contains(" of " + all + " rows");
    element("#groups-1-only").sendKeys(Keys.chord(Keys.CONTROL, "a"), Keys.DELETE);
    assertThat(texts("#groups-1 tbody tr")).hasSize(all);
  }

  @Test
  void everythingWorksWithTheKeyboard() {
    element("body").sendKeys(Keys.TAB);
    assertThat(browser.driver().switchTo().activeElement().getText()).isEqualTo("To the report");
    WebElement button = element("#groups-1 th:nth-child(1) button");
    browser.script("arguments[0].focus()", button);
    button.sendKeys(Keys.ENTER);
    assertThat(element("#groups-1 th:nth-child(1)").getAttribute("aria-sort"))
        .isEqualTo("ascending");
    WebElement box = element("#proposals input[type=checkbox]");
    browser.script("arguments[0].focus()", box);
    box.sendKeys(Keys.SPACE);
    assertThat(box.isSelected()).isTrue();
  }

  @Test
  void tickedLinesAreSavedAsCorrectionsThatTheNextRunUses() throws IOException {
    long before = matched(sample.run());
    browser.driver().get(address);
    tick("Merow Golb", null);
    tick("Thistle Dwn", null);
    tick(Sample.ATTRIBUTE, "Kestrel");
    element("#save-corrections").click();
    Path saved = folder.resolve("draft (1).csv");
    new WebDriverWait(browser.driver(), Duration.ofSeconds(20)).until(any -> Files.exists(saved));
    assertThat(element("#save-corrections + [role=status]").getText()).startsWith("3 accepted");
    String text = Files.readString(saved);
    assertThat(text.lines().filter(line -> line.endsWith(",yes"))).hasSize(3);
    assertThat(text).contains("Merow Golb,Merow Gold,").contains(Sample.TURNED.split(" ")[1]);
    Files.move(saved, sample.draft(), java.nio.file.StandardCopyOption.REPLACE_EXISTING);
    // Ten rows each of a misspelling, of another, and of what was typed in.
    PlannedRun.Result after = sample.run();
    assertThat(matched(after) + ambiguous(after)).isEqualTo(before + 10 + 30);
  }

  private static long matched(PlannedRun.Result result) {
    return result.record().lookups().get(0).matched();
  }

  private static long ambiguous(PlannedRun.Result result) {
    return result.record().lookups().get(0).ambiguous();
  }

  private static void tick(String written, String meant) {
    for (WebElement row : browser.driver().findElements(By.cssSelector("#proposals tbody tr"))) {
      if (row.findElement(By.cssSelector("td:nth-child(2)")).getText().equals(written)) {
        if (meant == null) {
          row.findElement(By.cssSelector("input[type=checkbox]")).click();
        } else {
          row.findElement(By.cssSelector("input[type=text]")).clear();
          row.findElement(By.cssSelector("input[type=text]")).sendKeys(meant);
        }
        return;
      }
    }
    throw new AssertionError("no proposal for " + written);
  }

  @Test
  void anAccessibilityCheckerFindsNothing() throws IOException {
    assertThat(browser.inaccessible()).isEmpty();
    browser.scheme("dark");
    browser.driver().get(address);
    String page = "return getComputedStyle(document.body).backgroundColor";
    assertThat(browser.script(page)).isEqualTo("rgb(27, 34, 31)");
    assertThat((String) browser.script("return document.images[0].currentSrc"))
        .isNotEqualTo(browser.script("return document.images[0].src"));
    assertThat(browser.inaccessible()).isEmpty();
  }

  @Test
  void aPhoneShowsItWithoutScrollingSideways() {
    browser
        .driver()
        .executeCdpCommand(
            "Emulation.setDeviceMetricsOverride",
            java.util.Map.of("width", 360, "height", 740, "deviceScaleFactor", 2, "mobile", true));
    browser.driver().get(address);
    assertThat((Long) browser.script("return document.documentElement.scrollWidth"))
        .isLessThanOrEqualTo(360);
    browser.driver().executeCdpCommand("Emulation.clearDeviceMetricsOverride", java.util.Map.of());
  }

  @Test
  void withoutScriptsAllOfItCanBeRead() {
    try (Browser plain = Browser.open(folder, false)) {
      plain.driver().get(address);
      List<WebElement> boxes = plain.driver().findElements(By.cssSelector("input, th button"));
      assertThat(boxes).isEmpty();
      assertThat(plain.driver().findElement(By.id("groups-1")).getText()).contains("Kestrel");
      assertThat(plain.driver().findElement(By.id("proposals")).getText()).contains("Merow Golb");
      assertThat(plain.driver().findElements(By.cssSelector("section > h2")).size())
          .isGreaterThan(12);
    }
  }
}
