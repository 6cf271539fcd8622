package yalos.core.geodesy;

/** From where to where something reaches along one line, or from which to which height; not numbers where nothing is known. */
public record Range(double least, double most) {
    public double length() {
        return most - least;
    }

    public double middle() {
        return (least + most) / 2;
    }
}
