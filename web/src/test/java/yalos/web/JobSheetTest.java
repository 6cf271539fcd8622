package yalos.web;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.http.HttpResponse;
import java.util.List;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;

/** All blocks of a job on one sheet: order, totals, names, parts and what is joined. */
@ExtendWith(RunningYalos.class)
class JobSheetTest {
    private static final String FIELD = "54.5134 -4.3489\n54.5134 -4.3449\n54.5154 -4.3449\n54.5154 -4.3489";

    private final Visitor visitor = new Visitor(RunningYalos.url());

    private String job(long block) {
        return Pattern.compile("href=\"(/jobs/\\d+)\"")
                .matcher(visitor.get("/blocks/" + block + "/strips").body())
                .results()
                .map(found -> found.group(1))
                .findFirst()
                .orElseThrow();
    }

    private long block(String name) {
        long block = visitor.newBlock(name, "54.5134, -4.3489");
        visitor.change(block, "ground", "/import", "text", FIELD);
        return block;
    }

    private static List<String> names(String page) {
        return Pattern.compile("href=\"/blocks/\\d+/strips\"[^>]*>([^<]+)<")
                .matcher(page)
                .results()
                .map(found -> found.group(1))
                .toList();
    }

    private static List<Long> ids(String page) {
        return Pattern.compile("href=\"/blocks/(\\d+)/strips\"")
                .matcher(page)
                .results()
                .map(found -> Long.parseLong(found.group(1)))
                .toList();
    }

    @Test
    void aBlockIsSplitReorderedRenamedAndJoinedAgain() {
        long block = block("Split job");
        String job = job(block);
        assertThat(visitor.get(job).body()).contains("1 block, ").contains("aria-label=\"All blocks of the job");
        HttpResponse<String> split =
                visitor.post(job + "/split", "block", "" + block, "how", "parts", "parts", "3", "overlap", "20 m");
        assertThat(split.statusCode()).isEqualTo(200);
        String parts = visitor.get(job).body();
        assertThat(names(parts)).containsExactly("Block A", "Block A part 1", "Block A part 2", "Block A part 3");
        assertThat(parts).contains("3 blocks, ").contains("hidden");
        long third = ids(parts).get(3);
        visitor.post(job + "/list", "block", "" + third, "act", "earlier");
        visitor.post(job + "/list", "block", "" + third, "act", "rename", "name", "East");
        assertThat(names(visitor.get(job).body()))
                .containsExactly("Block A", "Block A part 1", "East", "Block A part 2");
        visitor.post(
                job + "/join",
                "block",
                "" + ids(parts).get(1),
                "with",
                "" + ids(parts).get(2));
        String joined = visitor.get(job).body();
        assertThat(names(joined)).contains("Block A part 1 joined");
        assertThat(joined).contains("2 blocks, ");
        visitor.post(job + "/list", "block", "" + block, "act", "show");
        assertThat(visitor.get(job).body()).contains("3 blocks, ");
    }

    /** Each part, planned by itself, is flown on one set; where no number of parts is, that is said and nothing is made. */
    @Test
    void partsOfASetEachAreFlownOnOneSet() {
        long block = block("Sets");
        String job = job(block);
        visitor.change(block, "strips", "/ledger/gsd", "value", "0.4 cm");
        visitor.post(job + "/split", "block", "" + block, "how", "sets");
        List<Long> ids = ids(visitor.get(job).body());
        assertThat(ids.size()).isGreaterThan(2);
        for (long part : ids.subList(1, ids.size())) {
            assertThat(visitor.get("/blocks/" + part + "/strips").body())
                    .containsPattern("id=\"f-battery-sets\"[^>]*(value=\"1\"|>1<)");
        }
    }

    @Test
    void aLineThatMissesTheBlockIsRefusedAndNothingIsMade() {
        long block = block("Missed split");
        String job = job(block);
        HttpResponse<String> missed = visitor.post(
                job + "/split", "block", "" + block, "how", "line", "from", "54.6 -4.3", "to", "54.7 -4.3");
        assertThat(missed.statusCode()).isEqualTo(400);
        assertThat(missed.body()).contains("does not cross");
        assertThat(visitor.post(job + "/split", "block", "" + block, "how", "parts", "parts", "many")
                        .body())
                .contains("whole number");
        assertThat(visitor.post(job + "/split", "block", "" + block, "how", "sets")
                        .body())
                .contains("nothing to split");
        assertThat(names(visitor.get(job).body())).containsExactly("Block A");
        visitor.post(job + "/split", "block", "" + block, "how", "line", "from", "54.51 -4.347", "to", "54.52 -4.347");
        assertThat(names(visitor.get(job).body())).hasSize(3);
    }

    /** A block is changed through the page of its own job alone. */
    @Test
    void aBlockOfAnotherJobIsLeftAlone() {
        long block = block("Mine");
        String other = job(block("Theirs"));
        for (String way : List.of("/split", "/join", "/list")) {
            assertThat(visitor.post(other + way, "block", "" + block, "how", "parts", "act", "hide", "with", "" + block)
                            .statusCode())
                    .as(way)
                    .isEqualTo(404);
        }
        assertThat(names(visitor.get(job(block)).body())).containsExactly("Block A");
        assertThat(visitor.get(job(block)).body()).doesNotContain("hidden-block");
    }

    @Test
    void namesAreKeptApart() {
        long block = block("Names");
        String job = job(block);
        visitor.post("/blocks/" + block + "/copy");
        assertThat(visitor.post(job + "/list", "block", "" + block, "act", "rename", "name", "Block A copy")
                        .body())
                .contains("has a block called");
        assertThat(visitor.post(job + "/join", "block", "" + block, "with", "" + block)
                        .body())
                .contains("another block");
        assertThat(visitor.post(job + "/list", "block", "" + block, "act", "fly")
                        .statusCode())
                .isEqualTo(400);
    }
}
