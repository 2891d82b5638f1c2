package org.abletwine.cli;

import static com.tngtech.archunit.base.DescribedPredicate.describe;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.classes;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;
import static org.assertj.core.api.Assertions.assertThat;

import com.tngtech.archunit.core.domain.JavaClass;
import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.domain.JavaModifier;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.lang.ArchRule;
import java.lang.module.ModuleDescriptor;
import java.lang.module.ModuleFinder;
import java.net.URISyntaxException;
import java.nio.file.Path;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.abletwine.table.Table;
import org.junit.jupiter.api.Test;

/** Holds the arrows between modules and packages. */
class ArchitectureTest {
  private static final JavaClasses PRODUCT =
      new ClassFileImporter()
          .withImportOption(new ImportOption.DoNotIncludeTests())
          .importPackages("org.abletwine");

  private static final String[] CORE = {
    "org.abletwine.table..", "org.abletwine.key..", "org.abletwine.index..",
    "org.abletwine.lookup..", "org.abletwine.enrich..", "org.abletwine.figures..",
    "org.abletwine.step..", "org.abletwine.match..", "org.abletwine.compute..",
    "org.abletwine.derive..", "org.abletwine.correct..", "org.abletwine.expression..",
    "org.abletwine.audit.."
  };

  private static void holds(ArchRule rule) {
    rule.check(PRODUCT);
  }

  @Test
  void coreKnowsNoneOfTheOthers() {
    holds(
        noClasses()
            .that()
            .resideInAnyPackage(CORE)
            .should()
            .dependOnClassesThat()
            .resideInAnyPackage(
                "org.abletwine.formats..",
                "org.abletwine.plan..",
                "org.abletwine.cli..",
                "org.abletwine.demo..",
                "com.fasterxml..",
                "picocli..",
                "de.siegmar.."));
  }

  @Test
  void formatsKnowOnlyCoreAndPlansNotTheCommandLine() {
    holds(
        noClasses()
            .that()
            .resideInAPackage("org.abletwine.formats..")
            .should()
            .dependOnClassesThat()
            .resideInAnyPackage("org.abletwine.plan..", "org.abletwine.cli.."));
    holds(
        noClasses()
            .that()
            .resideInAPackage("org.abletwine.plan..")
            .should()
            .dependOnClassesThat()
            .resideInAnyPackage("org.abletwine.cli..", "org.abletwine.demo..", "picocli.."));
  }

  /** To read them takes a third of a short run: commands tell of their words themselves. */
  @Test
  void noCommandIsFoundByAnnotations() {
    holds(
        noClasses()
            .should()
            .dependOnClassesThat(
                describe(
                    "are annotations of the command line's library",
                    type -> type.isAnnotation() && type.getPackageName().equals("picocli"))));
  }

  /** A kind of table with large dependencies of its own: nobody knows it but by the core's door. */
  @Test
  void parquetStandsApart() {
    holds(
        noClasses()
            .that()
            .resideOutsideOfPackage("org.abletwine.parquet..")
            .should()
            .dependOnClassesThat()
            .resideInAnyPackage("org.abletwine.parquet..", "org.apache.parquet.."));
    holds(
        noClasses()
            .that()
            .resideInAPackage("org.abletwine.parquet..")
            .should()
            .dependOnClassesThat()
            .resideInAnyPackage("org.abletwine.plan..", "org.abletwine.cli.."));
  }

  /** What everybody may see: these packages, and few types in them. */
  @Test
  void theFrontDoorIsSmall() throws URISyntaxException {
    Path core = Path.of(Table.class.getProtectionDomain().getCodeSource().getLocation().toURI());
    ModuleDescriptor door =
        ModuleFinder.of(core).find("org.abletwine.core").orElseThrow().descriptor();
    Set<String> exported =
        door.exports().stream()
            .filter(export -> !export.isQualified())
            .map(ModuleDescriptor.Exports::source)
            .collect(Collectors.toSet());
    assertThat(exported)
        .containsExactlyInAnyOrderElementsOf(
            Stream.of(
                    "table", "key", "match", "step", "lookup", "correct", "derive", "enrich",
                    "figures", "audit")
                .map(name -> "org.abletwine." + name)
                .toList());
    assertThat(
            PRODUCT.stream()
                .filter(type -> exported.contains(type.getPackageName()))
                .filter(type -> type.getModifiers().contains(JavaModifier.PUBLIC))
                .filter(JavaClass::isTopLevelClass))
        .hasSizeLessThanOrEqualTo(61);
  }

  /** The report tells of runs, and is known by nobody but through the plan's door. */
  @Test
  void theReportStandsBetweenPlanAndCommandLine() {
    holds(
        noClasses()
            .that()
            .resideInAnyPackage(CORE)
            .or()
            .resideInAnyPackage("org.abletwine.formats..", "org.abletwine.plan..")
            .should()
            .dependOnClassesThat()
            .resideInAnyPackage("org.abletwine.report..", "gg.jte..", "org.knowm..", "java.awt.."));
    holds(
        noClasses()
            .that()
            .resideInAPackage("org.abletwine.report..")
            .should()
            .dependOnClassesThat()
            .resideInAnyPackage(
                "org.abletwine.formats..", "org.abletwine.cli..", "org.abletwine.demo.."));
  }

  @Test
  void packagesHaveNoCycles() {
    holds(slices().matching("org.abletwine.(*)..").should().beFreeOfCycles());
  }

  @Test
  void onlyTheCommandLinePrints() {
    holds(
        noClasses()
            .that()
            .resideOutsideOfPackages("org.abletwine.cli..", "org.abletwine.formats..")
            .should()
            .accessField(System.class, "out")
            .orShould()
            .accessField(System.class, "err"));
  }

  @Test
  void everyPublicTypeOfCoreIsFinalSealedOrAnInterface() {
    holds(
        classes()
            .that()
            .resideInAnyPackage(CORE)
            .and()
            .arePublic()
            .and()
            .areNotInterfaces()
            .and()
            .areNotEnums()
            .and()
            .doNotHaveModifier(JavaModifier.ABSTRACT)
            .should()
            .haveModifier(JavaModifier.FINAL));
  }
}
