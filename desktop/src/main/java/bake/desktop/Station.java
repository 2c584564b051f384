package bake.desktop;

/** The five places of the window, in the order of work. */
public enum Station {
    MODEL("Model"), LIGHT("Light"), VIEW("View"), PROVE("Prove"), DELIVER("Deliver");

    private final String title;

    Station(String title) {
        this.title = title;
    }

    public String title() {
        return title;
    }
}
