package org.zephyrmist.core;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;

import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import org.junit.jupiter.api.Test;

class ArchitectureTest {
  private static final JavaClasses core =
      new ClassFileImporter().importPackages("org.zephyrmist.core");

  @Test
  void coreKnowsNoFrameworkNoDatabaseAndNoNetwork() {
    noClasses()
        .should()
        .dependOnClassesThat()
        .resideInAnyPackage(
            "org.springframework..", "org.jooq..", "java.sql..", "java.net.http..", "jakarta..")
        .check(core);
  }

  @Test
  void subjectsOfTheCoreDoNotDependOnEachOtherInCircles() {
    slices().matching("org.zephyrmist.core.(*)..").should().beFreeOfCycles().check(core);
  }

  @Test
  void planningKnowsNothingOfPackagesAndRosters() {
    noClasses()
        .that()
        .resideInAnyPackage("..core.delivery..", "..core.content..", "..core.tree..")
        .should()
        .dependOnClassesThat()
        .resideInAnyPackage("..core.cartridge..", "..core.roster..")
        .check(core);
  }
}
