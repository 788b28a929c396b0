package org.zephyrmist.server;

import static com.tngtech.archunit.core.domain.JavaClass.Predicates.resideInAPackage;
import static com.tngtech.archunit.core.domain.JavaClass.Predicates.simpleName;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.classes;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noMethods;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;

import com.tngtech.archunit.base.DescribedPredicate;
import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption;
import org.junit.jupiter.api.Test;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.web.bind.annotation.RestController;

class ArchitectureTest {
  private static final JavaClasses server =
      new ClassFileImporter()
          .withImportOption(ImportOption.Predefined.DO_NOT_INCLUDE_TESTS)
          .importPackages("org.zephyrmist.server");

  @Test
  void packagesAreNamedBySubjectNotByLayer() {
    noClasses()
        .should()
        .resideInAnyPackage("..controllers..", "..services..", "..dtos..", "..utils..", "..impl..")
        .check(server);
  }

  @Test
  void onlyTheDemoKnowsTheDemo() {
    noClasses()
        .that()
        .resideOutsideOfPackage("..demo..")
        .should()
        .dependOnClassesThat()
        .resideInAPackage("..demo..")
        .check(server);
  }

  @Test
  void contentKnowsNoDeliveriesAndNoPlatforms() {
    noClasses()
        .that()
        .resideInAPackage("..server.content..")
        .should()
        .dependOnClassesThat()
        .resideInAnyPackage("..server.delivery..", "..server.platform..", "..server.master..")
        .check(server);
  }

  @Test
  void thereIsNoOtherQueryLayerThanJooq() {
    noClasses()
        .should()
        .dependOnClassesThat()
        .resideInAnyPackage("org.springframework.jdbc..", "jakarta.persistence..")
        .check(server);
  }

  @Test
  void everyControllerOfSourcesAndDeliveriesSaysWhoMayCallIt() {
    classes()
        .that()
        .areAnnotatedWith(RestController.class)
        .and()
        .resideInAnyPackage("..cartridge..", "..master..", "..delivery..", "..coverage..")
        .should()
        .beAnnotatedWith(PreAuthorize.class)
        .check(server);
  }

  @Test
  void subjectsOfTheServerDoNotDependOnEachOtherInCircles() {
    slices()
        .matching("org.zephyrmist.server.(*)..")
        .should()
        .beFreeOfCycles()
        .ignoreDependency(resideInAPackage("..server.db.."), DescribedPredicate.alwaysTrue())
        .check(server);
  }

  @Test
  void onlyTheLedgerTouchesWhatSectionsHold() {
    noClasses()
        .that()
        .resideOutsideOfPackages("..server.ledger..", "..server.db..")
        .should()
        .dependOnClassesThat(
            resideInAPackage("..server.db.tables..")
                .and(
                    simpleName("Holding")
                        .or(simpleName("Receipt"))
                        .or(simpleName("Standing"))
                        .or(simpleName("RestorePoint"))
                        .or(simpleName("Acceptance"))))
        .check(server);
  }

  @Test
  void aRoomDoesNotHandOnRowsOfItsTables() {
    noMethods()
        .that()
        .areDeclaredInClassesThat()
        .resideInAnyPackage("..ledger..", "..shell..", "..line..", "..platform..")
        .and()
        .arePublic()
        .should()
        .haveRawReturnType(resideInAPackage("..server.db.."))
        .check(server);
  }

  @Test
  void whatAnAddressOfAPlatformLooksLikeIsBehindItsGateway() {
    noClasses()
        .that()
        .resideOutsideOfPackage("..platform..")
        .should()
        .dependOnClassesThat()
        .haveSimpleName("HttpAddresses")
        .check(server);
  }
}
