package yalos.web.shell;

/** Ways back within this program. */
public final class Here {
    private Here() {}

    /** The path as given where it is a page of this program, never of another site; otherwise the list of jobs. */
    public static String path(String back) {
        boolean plain = back.chars().allMatch(letter -> letter > 0x20 && letter < 0x7f && letter != '\\');
        return plain && back.startsWith("/") && !back.startsWith("//") ? back : "/jobs";
    }
}
