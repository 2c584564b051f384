package bake.studio.scene;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertNull;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.core.scene.Lamp;
import bake.formats.FormatException;
import bake.formats.Json;
import bake.formats.project.Project;
import bake.formats.project.ProjectFile;
import bake.formats.project.View;
import bake.studio.project.Settings;
import java.io.IOException;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Lamps in all their units, and settings changed by path. */
class LampsAndSettingsTest {
    private static Project project(String lamp) throws IOException {
        return ProjectFile.read(Json.MAPPER.readTree("""
                {"bake": 1, "name": "x", "lamps": [{"name": "l", "position": [0,0,2], %s}],
                 "views": [{"name": "One", "camera": {"position": [0,0,1], "target": [0,1,1]}}, {"name": "Two, dusk", "camera": {"position": [0,0,1], "target": [0,1,1]}}]}""".formatted(lamp)), "test");
    }

    private static Lamp lamp(String text) throws IOException {
        return LampFactory.lamp(project(text).lamps().getFirst());
    }

    /** Flux, by the unit given: an even point of 1 cd has 4 pi lm, a flat diffuse face pi times its peak intensity. */
    @ParameterizedTest
    @CsvSource(delimiter = '|', value = {
        "\"kind\": \"point\", \"lumens\": 800 | 800",
        "\"kind\": \"point\", \"candela\": 10 | 125.66370614",
        "\"kind\": \"sphere\", \"diameter\": 0.2, \"candela\": 10 | 125.66370614",
        "\"kind\": \"disc\", \"diameter\": 0.4, \"candela\": 100 | 314.15926536",
        "\"kind\": \"rectangle\", \"width\": 2, \"height\": 0.5, \"luminance\": 1000 | 3141.5926536",
        "\"kind\": \"rectangle\", \"width\": 2, \"height\": 0.5, \"luminance\": 1000, \"twoSided\": true | 6283.1853072",
        "\"kind\": \"tube\", \"diameter\": 0.02, \"height\": 1.2, \"candela\": 100 | 986.9604401",
        "\"kind\": \"tube\", \"diameter\": 0.02, \"height\": 1.2, \"luminance\": 1000 | 236.8705056",
        "\"kind\": \"point\", \"lux\": 100, \"at\": 2 | 5026.5482457",
        "\"kind\": \"disc\", \"diameter\": 2, \"lux\": 100 | 628.3185307",
        "\"kind\": \"disc\", \"diameter\": 2, \"luminance\": 100 | 986.9604401",
        "\"kind\": \"sphere\", \"diameter\": 1, \"luminance\": 100 | 986.9604401"})
    void units(String text, double lumens) throws IOException {
        assertEquals(lumens, lamp(text).lumens(), 1e-6 * lumens);
    }

    /** A lamp that shares its settings follows them; where it stands is its own. */
    @Test
    void sharedSettings() throws IOException {
        Project p = ProjectFile.read(Json.MAPPER.readTree("""
                {"bake": 1, "name": "x", "lamps": [
                  {"name": "first", "position": [0,0,2], "kind": "disc", "diameter": 0.3, "lumens": 500, "kelvin": 2700, "group": "A"},
                  {"name": "second", "like": "first", "position": [1,0,2], "direction": [0,1,0]},
                  {"name": "third", "like": "second", "position": [2,0,2], "group": "B"},
                  {"name": "lost", "like": "nobody", "position": [2,0,2]}]}"""), "test");
        var third = LampFactory.lamp(p.lamps().get(2).alone(p.lamps()));
        assertEquals(500, third.lumens());
        assertEquals("third", third.name());
        assertEquals("B", third.group());
        assertEquals(2, third.position().x());
        assertEquals(1, LampFactory.lamp(p.lamps().get(1).alone(p.lamps())).frame().vector(new bake.core.math.Vec3(0, 0, 1)).y(), 1e-9);
        assertTrue(assertThrows(FormatException.class, () -> LampFactory.lamp(p.lamps().get(3).alone(p.lamps()))).getMessage()
                .contains("nobody"));
    }

    /** A spot of 1000 cd even over 40 degrees and nothing beyond: 2 pi (1 - cos 20) 1000 lm. */
    @Test
    void spot() throws IOException {
        double lm = lamp("\"kind\": \"spot\", \"candela\": 1000, \"beam\": 40, \"field\": 40").lumens();
        assertEquals(2000 * Math.PI * (1 - Math.cos(Math.toRadians(20))), lm, 1e-6 * lm);
        assertTrue(lamp("\"kind\": \"spot\", \"candela\": 1000, \"beam\": 40, \"field\": 60").lumens() > lm);
    }

    @Test
    void colourKeepsTheOutput() throws IOException {
        Lamp warm = lamp("\"kind\": \"point\", \"lumens\": 500, \"kelvin\": 2700"),
                red = lamp("\"kind\": \"point\", \"lumens\": 500, \"colour\": [1, 0.1, 0.05]");
        assertEquals(1, warm.colour().luminance(), 1e-9);
        assertEquals(1, red.colour().luminance(), 1e-9);
        assertTrue(warm.colour().x() > warm.colour().z() && red.colour().x() > warm.colour().x());
        assertEquals(500, red.lumens());
    }

    @ParameterizedTest
    @ValueSource(strings = {
        "\"kind\": \"point\"",
        "\"kind\": \"point\", \"lumens\": 5, \"candela\": 5",
        "\"kind\": \"point\", \"luminance\": 5",
        "\"kind\": \"sphere\", \"lumens\": 5",
        "\"kind\": \"rectangle\", \"width\": 1, \"height\": 0, \"lumens\": 5",
        "\"kind\": \"point\", \"lumens\": 5, \"colour\": [0, 0, 0]",
        "\"kind\": \"torch\", \"lumens\": 5",
        "\"kind\": \"point\", \"lumens\": -5"})
    void nonsenseNamesTheLamp(String text) {
        FormatException e = assertThrows(FormatException.class, () -> lamp(text));
        assertTrue(e.getMessage().contains("lamp") && !e.getMessage().contains("Exception"), e.getMessage());
    }

    @Test
    void pathsReachEverything() throws IOException {
        Project p = project("\"kind\": \"point\", \"lumens\": 5");
        assertEquals(4, Settings.set(p, "views[0].around.haze=4").views().getFirst().around().haze());
        assertEquals(35, Settings.set(p, "views[One].camera.focal = 35").views().getFirst().camera().focal());
        assertEquals(3000, Settings.set(p, "views[Two, dusk].whiteBalance=3000").views().get(1).look().whiteBalance());
        assertEquals(900, Settings.set(p, "lamps[l].lumens=900").lamps().getFirst().lumens());
        assertEquals("Hall", Settings.set(p, "name=Hall").name());
        assertEquals("plain", Settings.set(p, "views[0].around={\"kind\": \"plain\", \"luminance\": [1,2,3]}").views().getFirst().around()
                .kind());
        assertEquals(1, Settings.set(p, "views[0].faders.Lamps=1").views().getFirst().faders().get("Lamps"));
    }

    @ParameterizedTest
    @ValueSource(strings = {"views", "=3", "views[7].around.haze=4", "views[Nine].around.haze=4", "lamps[x].lumens=3", "name[0]=3"})
    void pathsThatLeadNowhere(String assignment) throws IOException {
        Project p = project("\"kind\": \"point\", \"lumens\": 5");
        IllegalArgumentException e = assertThrows(IllegalArgumentException.class, () -> Settings.set(p, assignment));
        assertTrue(e.getMessage().startsWith("--set"), e.getMessage());
    }

    @ParameterizedTest
    @ValueSource(strings = {"views[0].around.haze=400", "views[0].camera.focal=-3", "views[0].size=[0,0]", "lamps[0].lumens=much", "bake=9",
            "views[0].whiteBalance=20"})
    void valuesOutOfRange(String assignment) throws IOException {
        Project p = project("\"kind\": \"point\", \"lumens\": 5");
        assertThrows(FormatException.class, () -> Settings.set(p, assignment));
    }

    /** A local time that is left out or comes twice is said, and one of the two can be named. */
    @Test
    void hoursThatDoNotExistOrComeTwice() throws IOException {
        Project.Place zurich = new Project.Place(47.1, 8.9, "Europe/Zurich", 0, Map.of());
        View.Around a = View.Around.sunAndSky("2027-03-28", "02:30", 2.5);
        assertTrue(SunPosition.oddity(zurich, a).contains("03:30 is taken"));
        View.Around twice = a.withTime("2027-10-31", "02:30");
        assertTrue(SunPosition.oddity(zurich, twice).contains("comes twice"), SunPosition.oddity(zurich, twice));
        View.Around second = a.withTime("2027-10-31", "02:30+01:00");
        assertNull(SunPosition.oddity(zurich, second));
        assertEquals(3600, SunPosition.moment(zurich, second).toEpochSecond() - SunPosition.moment(zurich, twice).toEpochSecond());
        assertNull(SunPosition.oddity(zurich, a.withTime("2027-06-21", "02:30")));
    }

    /** A material that only the model has is changed by its name, which may have dots. */
    @Test
    void aModelsOwnMaterialCanBeSet() throws IOException {
        Project p = Settings.set(project("\"kind\": \"point\", \"lumens\": 800"), "materials[oak.01].roughness=0.25");
        assertEquals(0.25, p.materials().stream().filter(m -> m.name().equals("oak.01")).findFirst().orElseThrow().roughness(), 1e-12);
        int n = p.materials().size();
        assertEquals(n, Settings.set(p, "materials[oak.01].metallic=1").materials().size());
    }
}
