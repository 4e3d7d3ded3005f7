package dev.morphema;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.classes;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.Architectures.layeredArchitecture;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;

import com.tngtech.archunit.base.DescribedPredicate;
import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.junit.AnalyzeClasses;
import com.tngtech.archunit.junit.ArchTest;
import com.tngtech.archunit.lang.ArchRule;

/** Imports run one way: from the library down to values and problems. */
@AnalyzeClasses(packages = "dev.morphema", importOptions = ImportOption.DoNotIncludeTests.class)
class ArchitectureTest {
    @ArchTest
    static final ArchRule LAYERS = layeredArchitecture()
            .consideringOnlyDependenciesInLayers()
            .layer("library")
            .definedBy("dev.morphema")
            .layer("output")
            .definedBy("dev.morphema.output")
            .layer("formats")
            .definedBy(
                    "dev.morphema.standard",
                    "dev.morphema.formats",
                    "dev.morphema.csv",
                    "dev.morphema.fixed",
                    "dev.morphema.json",
                    "dev.morphema.xml")
            .layer("engine")
            .definedBy("dev.morphema.engine")
            .layer("store")
            .definedBy("dev.morphema.store")
            .layer("event")
            .definedBy("dev.morphema.event")
            .layer("plan")
            .definedBy("dev.morphema.plan")
            .layer("check")
            .definedBy("dev.morphema.check")
            .layer("function")
            .definedBy("dev.morphema.function")
            .layer("format")
            .definedBy("dev.morphema.format")
            .layer("convert")
            .definedBy("dev.morphema.convert")
            .layer("syntax")
            .definedBy("dev.morphema.syntax")
            .layer("value")
            .definedBy("dev.morphema.value")
            .layer("problem")
            .definedBy("dev.morphema.problem")
            .whereLayer("library")
            .mayNotBeAccessedByAnyLayer()
            .whereLayer("output")
            .mayOnlyBeAccessedByLayers("library")
            .whereLayer("formats")
            .mayOnlyBeAccessedByLayers("library")
            .whereLayer("engine")
            .mayOnlyBeAccessedByLayers("library", "output")
            .whereLayer("store")
            .mayOnlyBeAccessedByLayers("engine", "output")
            .whereLayer("event")
            .mayOnlyBeAccessedByLayers("engine", "output")
            .whereLayer("plan")
            .mayOnlyBeAccessedByLayers("engine", "library")
            .whereLayer("check")
            .mayOnlyBeAccessedByLayers("plan", "engine", "library")
            .whereLayer("function")
            .mayOnlyBeAccessedByLayers("check", "plan", "engine", "formats", "library")
            .whereLayer("convert")
            .mayOnlyBeAccessedByLayers("function", "check", "engine")
            .whereLayer("syntax")
            .mayOnlyBeAccessedByLayers("check", "plan", "engine", "store", "event", "library");

    @ArchTest
    static final ArchRule NO_PACKAGES_NEED_ONE_ANOTHER =
            slices().matching("dev.morphema.(**)").should().beFreeOfCycles();

    @ArchTest
    static final ArchRule CORE_KNOWS_NO_FILES_AND_FORMATS = noClasses()
            .that()
            .resideInAnyPackage(
                    "dev.morphema.engine",
                    "dev.morphema.store",
                    "dev.morphema.event",
                    "dev.morphema.plan",
                    "dev.morphema.check",
                    "dev.morphema.shape",
                    "dev.morphema.function",
                    "dev.morphema.format",
                    "dev.morphema.convert",
                    "dev.morphema.syntax",
                    "dev.morphema.value",
                    "dev.morphema.problem")
            .should()
            .dependOnClassesThat()
            .resideInAnyPackage("java.nio.file..", "de.siegmar..", "tools.jackson..", "com.ctc..", "javax.xml..");

    @ArchTest
    static final ArchRule NO_STANDARD_STREAMS =
            noClasses().should().accessField(System.class, "out").orShould().accessField(System.class, "err");

    @ArchTest
    static final ArchRule NO_MUTABLE_STATICS = com.tngtech.archunit.lang.syntax.ArchRuleDefinition.fields()
            .that()
            .areStatic()
            .should()
            .beFinal();

    @ArchTest
    static final ArchRule CLASSES_ARE_FINAL_UNLESS_MADE_TO_BE_EXTENDED = classes()
            .that()
            .areNotInterfaces()
            .and()
            .doNotHaveModifier(com.tngtech.archunit.core.domain.JavaModifier.ABSTRACT)
            .and()
            .areNotEnums()
            .and()
            .areNotAnonymousClasses()
            .and(DescribedPredicate.describe(
                    "are not sealed", type -> !type.reflect().isSealed()))
            .should()
            .haveModifier(com.tngtech.archunit.core.domain.JavaModifier.FINAL);
}
