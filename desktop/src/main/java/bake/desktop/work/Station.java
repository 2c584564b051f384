package bake.desktop.work;

/** The five places of the window, in the order of work. */
public enum Station {
    MODEL("Model"), LIGHT("Light"), VIEW("View"), PROVE("Prove"), FINALS("Finals");

    private final String title;

    Station(String title) {
        this.title = title;
    }

    public String title() {
        return title;
    }
}
