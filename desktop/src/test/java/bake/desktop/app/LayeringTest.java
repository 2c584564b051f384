package bake.desktop.app;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.Architectures.layeredArchitecture;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;

import bake.desktop.work.Workbench;
import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.junit.AnalyzeClasses;
import com.tngtech.archunit.junit.ArchTest;
import com.tngtech.archunit.lang.ArchRule;
import java.util.Arrays;

/** Who may know whom: each module only those below it. */
@AnalyzeClasses(packages = "bake", importOptions = ImportOption.DoNotIncludeTests.class)
class LayeringTest {
    @ArchTest
    static final ArchRule LAYERS = layeredArchitecture().consideringOnlyDependenciesInLayers()
            .layer("core").definedBy("bake.core..").layer("formats").definedBy("bake.formats..").layer("demo").definedBy("bake.demo..")
            .layer("studio").definedBy("bake.studio..").layer("cli").definedBy("bake.cli..").layer("desktop").definedBy("bake.desktop..")
            .whereLayer("desktop").mayNotBeAccessedByAnyLayer()
            .whereLayer("cli").mayOnlyBeAccessedByLayers("desktop")
            .whereLayer("studio").mayOnlyBeAccessedByLayers("cli", "desktop")
            .whereLayer("demo").mayOnlyBeAccessedByLayers("cli", "desktop")
            .whereLayer("formats").mayOnlyBeAccessedByLayers("demo", "studio", "cli", "desktop");

    @ArchTest
    static final ArchRule CORE_STANDS_ALONE = noClasses().that().resideInAPackage("bake.core..").should().dependOnClassesThat()
            .resideOutsideOfPackages("bake.core..", "java.lang..", "java.util..", "java.nio", "jdk.incubator.vector..")
            .because("core knows no files, no JSON, no interface and no framework");

    /** Packages of the engine from below, each of which may know only those before it. */
    private static final String[] ENGINE = {"cache", "compiled", "work", "path", "reuse", "learn", "solve", "render", "meters"};

    @ArchTest
    static void engineIsLayered(JavaClasses all) {
        for (int i = 0; i < ENGINE.length; i++) {
            String[] above = Arrays.stream(ENGINE, i + 1, ENGINE.length).map(p -> "bake.core." + p + "..").toArray(String[]::new);
            if (above.length > 0) noClasses().that().resideInAPackage("bake.core." + ENGINE[i] + "..").should().dependOnClassesThat()
                    .resideInAnyPackage(above).check(all);
        }
    }

    /** Rooms of the studio and of the window know each other in one direction only. */
    @ArchTest
    static final ArchRule STUDIO_HAS_NO_CIRCLES = slices().matching("bake.studio.(*)..").should().beFreeOfCycles();

    /** Rooms of the window from below; stations do not know each other, and nothing but the window's own room knows a station. */
    @ArchTest
    static final ArchRule WINDOW = layeredArchitecture().consideringOnlyDependenciesInLayers()
            .layer("text").definedBy("bake.desktop.text..").layer("parts").definedBy("bake.desktop.parts..")
            .layer("work").definedBy("bake.desktop.work..").layer("easel").definedBy("bake.desktop.easel..")
            .layer("stations").definedBy("bake.desktop.station..").layer("app").definedBy("bake.desktop.app..")
            .whereLayer("app").mayNotBeAccessedByAnyLayer()
            .whereLayer("stations").mayOnlyBeAccessedByLayers("app")
            .whereLayer("easel").mayOnlyBeAccessedByLayers("app")
            .whereLayer("work").mayOnlyBeAccessedByLayers("easel", "stations", "app");

    @ArchTest
    static final ArchRule STATIONS_STAND_APART = slices().matching("bake.desktop.station.(*)..").should().notDependOnEachOther();

    /** A station gets what it needs, not everything. */
    @ArchTest
    static final ArchRule STATIONS_KNOW_NO_HUB = noClasses().that().resideInAPackage("bake.desktop.station..").should()
            .dependOnClassesThat().areAssignableTo(Workbench.class);

    @ArchTest
    static final ArchRule WORK_HOLDS_NO_CONTROL = noClasses().that().resideInAPackage("bake.desktop.work..").should().dependOnClassesThat()
            .resideInAnyPackage("javafx.scene.control..", "javafx.scene.layout..", "javafx.stage..");

    @ArchTest
    static final ArchRule CORE_HAS_NO_CLOCK = noClasses().that().resideInAPackage("bake.core..").should()
            .callMethod(System.class, "nanoTime")
            .orShould().callMethod(System.class, "currentTimeMillis");

    @ArchTest
    static final ArchRule NO_WINDOW_BELOW = noClasses().that().resideOutsideOfPackage("bake.desktop..").should().dependOnClassesThat()
            .resideInAPackage("javafx..");
}
