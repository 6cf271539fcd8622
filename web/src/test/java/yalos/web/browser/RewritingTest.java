package yalos.web.browser;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Page;
import com.microsoft.playwright.Route;
import com.microsoft.playwright.options.SelectOption;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.function.Predicate;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** A part of the page that is written anew: what stays, what is exchanged, and what somebody is doing meanwhile. */
class RewritingTest extends OnTheDemo {
    /** Shows one piece, does something in it, has it written as the other, and answers what is asked of it then. */
    private static final String REWRITE = """
            async ({ module, shown, written, how, typed }) => {
              const { rewrite, EXCHANGE, LEAVE } = await import(module);
              const made = html => new DOMParser().parseFromString(html, 'text/html').body.firstElementChild;
              document.querySelector('#part')?.remove();
              const part = document.adoptNode(made(`<div id="part">${shown}</div>`));
              document.body.append(part);
              const $ = name => document.querySelector('#part ' + name);
              const now = (() => { %s })();
              const kinds = { exchange: EXCHANGE, leave: LEAVE };
              rewrite(part, document.adoptNode(made(`<div id="part">${written}</div>`)),
                element => kinds[how[element.id]], field => typed === field.id);
              return %s;
            }""";

    private Page page;

    @BeforeEach
    void show() {
        page = browsing.page(1280, 800);
        show(page, "/blocks/2/strips");
    }

    @AfterEach
    void close() {
        page.context().close();
    }

    private Object rewritten(String shown, String meanwhile, String written, String asked) {
        return rewritten(shown, meanwhile, written, asked, Map.of(), "none");
    }

    private Object rewritten(
            String shown, String meanwhile, String written, String asked, Map<String, String> how, String typed) {
        String app = (String) page.evaluate("() => document.querySelector('script[type=module]').src");
        return page.evaluate(
                REWRITE.formatted(meanwhile, asked),
                Map.of(
                        "module", app.replace("yalos.js", "rewriting.js"),
                        "shown", shown,
                        "written", written,
                        "how", how,
                        "typed", typed));
    }

    @Test
    void wordsAndAttributesChangeWhereTheyStand() {
        assertThat(rewritten(
                        "<p class='a' title='x'>one <b>two</b></p>",
                        "return $('b')",
                        "<p class='b' lang='de'>eins <b>zwei</b></p>",
                        "[now === $('b'), $('p').outerHTML].join(' ')"))
                .isEqualTo("true <p class=\"b\" lang=\"de\">eins <b>zwei</b></p>");
    }

    /** A row more is not one row written over another: its list is exchanged, and what stands beside it stays. */
    @Test
    void whatHasOtherPartsIsExchangedAlone() {
        String asked = "[now[0] === $('p'), now[1] === $('li'), $('ul').children.length].join()";
        assertThat(rewritten(
                        "<p>a</p><ul><li>1</li></ul>",
                        "return [$('p'), $('li')]",
                        "<p>b</p><ul><li>1</li><li>2</li></ul>",
                        asked))
                .isEqualTo("true,false,2");
        assertThat(rewritten(
                        "<p>a</p><ul><li id='x'>1</li></ul>",
                        "return [$('p'), $('li')]",
                        "<p>a</p><ul><li id='y'>1</li></ul>",
                        asked))
                .as("another row")
                .isEqualTo("true,false,1");
    }

    /** The program's answer counts, not what was pressed before it; but what is being typed is not taken away. */
    @Test
    void fieldsHoldWhatWasWritten() {
        assertThat(rewritten(
                        "<input id='f' value='2'>",
                        "$('#f').value = '3'",
                        "<input id='f' value='4'>",
                        "[$('#f').value, $('#f').defaultValue].join()"))
                .isEqualTo("4,4");
        assertThat(rewritten(
                        "<input id='f' value='2'>",
                        "const f = $('#f'); f.focus(); f.value = '3.'; f.setSelectionRange(1, 1)",
                        "<input id='f' value='4'>",
                        "[$('#f').value, $('#f').defaultValue, $('#f').selectionStart, document.activeElement.id].join()",
                        Map.of(),
                        "f"))
                .isEqualTo("3.,4,1,f");
        assertThat(rewritten(
                        "<input type='checkbox'>",
                        "$('input').checked = true",
                        "<input type='checkbox'>",
                        "$('input').checked"))
                .isEqualTo(false);
        assertThat(rewritten(
                        "<textarea>a</textarea>",
                        "$('textarea').value = 'b'",
                        "<textarea>c</textarea>",
                        "$('textarea').value"))
                .isEqualTo("c");
    }

    @Test
    void ofAListTheOneThatWasWrittenIsChosen() {
        String asked = "$('select').value";
        String first = "<select><option selected>a</option><option>b</option></select>";
        String second = "<select><option>a</option><option selected>b</option></select>";
        String none = "<select><option>a</option><option>b</option></select>";
        assertThat(rewritten(first, "", second, asked)).isEqualTo("b");
        assertThat(rewritten(first, "$('select').value = 'b'", first, asked)).isEqualTo("a");
        assertThat(rewritten(second, "", none, asked)).isEqualTo("a");
    }

    /** What was chosen and not sent stays, whatever is marked as chosen meanwhile. */
    @Test
    void aChoiceThatWaitsStays() {
        String list = "<select id='s'><option%s>a</option><option%s>b</option><option%s>c</option></select>";
        assertThat(rewritten(
                        list.formatted(" selected", "", ""),
                        "$('select').value = 'b'",
                        list.formatted("", "", " selected"),
                        "$('select').value",
                        Map.of(),
                        "s"))
                .isEqualTo("b");
    }

    /** What somebody unfolded and the page remembers stays so; else it is as it was written. */
    @Test
    void foldsThatHaveANameStay() {
        assertThat(rewritten(
                        "<details id='d'><summary>a</summary></details><details><summary>b</summary></details>",
                        "$('#d').open = true; $('details:not([id])').open = true",
                        "<details id='d'><summary>c</summary></details><details><summary>b</summary></details>",
                        "[$('#d').open, $('details:not([id])').open].join()"))
                .isEqualTo("true,false");
    }

    @Test
    void someIsExchangedAndSomeIsLeft() {
        assertThat(rewritten(
                        "<p id='a'>a</p><p id='b'>b</p>",
                        "return [$('#a'), $('#b')]",
                        "<p id='a'>a</p><p id='b'>new</p>",
                        "[now[0] === $('#a'), now[1] === $('#b'), $('#b').textContent].join()",
                        Map.of("a", "exchange", "b", "leave"),
                        "none"))
                .isEqualTo("false,true,b");
    }

    /**
     * Where the book differs from how the program would write it now, but for what is asked for later, what was unfolded and the token of the page;
     * nothing where it does not.
     */
    private static final String AS_WRITTEN = """
            async () => {
              const answer = await fetch(location.href, { headers: { Accept: 'text/html' } });
              const fresh = new DOMParser().parseFromString(await answer.text(), 'text/html');
              const book = of => {
                const copy = document.importNode(of.getElementById('book'), true);
                for (const one of copy.querySelectorAll('.remedies, [hx-get], input[name=_csrf]')) one.remove();
                for (const one of copy.querySelectorAll('*')) {
                  one.classList.remove('htmx-request');
                  for (const name of ['data-seen', 'open']) one.removeAttribute(name);
                  if (!one.getAttribute('class')) one.removeAttribute('class');
                }
                return copy;
              };
              const held = of => [...of.querySelectorAll('#book input:not([type=hidden]), #book select')]
                .map(field => (field.type === 'checkbox' ? field.checked : field.value)).join();
              const parts = of => [held(of), ...book(of).outerHTML.split('<').map(part => part.trim())];
              const [now, wanted] = [parts(document), parts(fresh)];
              const differs = [...(wanted.length > now.length ? wanted : now).keys()].find(i => now[i] !== wanted[i]);
              return differs === undefined ? '' : `${now[differs]} instead of ${wanted[differs]}`;
            }""";

    /** Whatever is pressed, in whatever order, what comes of it is what a page asked for anew would show. */
    @Test
    void afterEachChangeItIsAsWrittenNow() {
        Browsing.awaitSheet(page);
        String[] pressed = {
            "#row-gsd .step[value='1']",
            "#row-speed .pin",
            "#row-gsd .why",
            "#row-side-overlap .step[value='-1']",
            "#undo",
            "#row-heights-to .why",
            "#row-photos .pin",
            "#row-photos .step[value='-1']",
            "#stages a[data-stage=ground]",
            "#undo",
            "#stages a[data-stage=strips]",
            "#undo",
            "#undo",
            "#redo",
            "#undo",
            "#undo"
        };
        for (String one : pressed) {
            page.evaluate("one => document.querySelector(one).click()", one);
            page.waitForFunction("() => !document.documentElement.matches('[data-changing], [data-turning]')");
            assertThat(page.evaluate(AS_WRITTEN)).as(one).isEqualTo("");
        }
        assertThat(browsing.complaints()).isEmpty();
    }

    /** On the page itself: the row that is pressed stays under the hand, with the keyboard in it. */
    @Test
    void aPressedRowStays() {
        Browsing.awaitSheet(page);
        page.evaluate("() => { window.row = document.getElementById('row-gsd'); }");
        pressed("#row-gsd .step[value='1']");
        assertThat(page.evaluate("() => document.getElementById('row-gsd') === window.row"))
                .isEqualTo(true);
        assertThat(page.evaluate("() => document.activeElement.ariaLabel")).isEqualTo("GSD: more");
        assertThat(page.getAttribute("#row-gsd input[name=version]", "value"))
                .isEqualTo(page.getAttribute("#book", "data-version"));
    }

    /** Tabs, the way back and what was saved follow each change where they stand; whoever goes back by the keyboard can do so again. */
    @Test
    void whatStandsBesideTheBookStaysAndFollows() {
        Browsing.awaitSheet(page);
        pressed("#row-gsd .step[value='1']");
        pressed("#row-gsd .step[value='1']");
        page.evaluate(
                "() => { window.beside = ['#undo', '#saved', '#stages .here a'].map(at => document.querySelector(at)); }");
        String saved = page.textContent("#saved");
        page.focus("#undo");
        for (int i = 0; i < 2; i++) {
            page.keyboard().press("Enter");
            page.waitForFunction("() => !document.documentElement.hasAttribute('data-changing')");
        }
        assertThat(
                        page.evaluate(
                                "() => ['#undo', '#saved', '#stages .here a'].every((at, i) => document.querySelector(at) === window.beside[i])"))
                .isEqualTo(true);
        assertThat(page.textContent("#saved")).isNotEqualTo(saved);
        assertThat(page.isDisabled("#undo")).as("all is taken back").isTrue();
        assertThat(page.isDisabled("#redo")).isFalse();
        assertThat(page.getAttribute("#history input[name=version]", "value"))
                .isEqualTo(page.getAttribute("#book", "data-version"));
    }

    /** Remedies take turns to be tried. One that was called off, as the plan changed meanwhile, does not keep the others waiting. */
    @Test
    void remediesAreTriedAnewAfterAChangeMeanwhile() {
        List<Route> held = new ArrayList<>();
        Predicate<String> mends = address -> address.contains("/mends");
        page.route(mends, held::add);
        page.fill("#f-photos", "60");
        page.waitForRequest(request -> mends.test(request.url()), () -> page.press("#f-photos", "Enter"));
        page.fill("#f-side-overlap", "71");
        page.waitForRequest(request -> mends.test(request.url()), () -> page.press("#f-side-overlap", "Enter"));
        page.unroute(mends);
        held.forEach(Route::resume);
        page.waitForSelector(".findings .finding.stop button.remedy");
        for (int i = 0; i < 2; i++) {
            page.click("#undo");
            page.waitForFunction("() => !document.documentElement.hasAttribute('data-changing')");
        }
        assertThat(browsing.complaints()).isEmpty();
    }

    /** What was put into a form and not sent yet is not taken away by a change elsewhere; once it is sent, its answer counts. */
    @Test
    void whatWaitsForItsButtonStays() {
        show(page, "/blocks/2/ground");
        Browsing.awaitSheet(page);
        page.evaluate("() => { document.getElementById('obstacles').open = true; }");
        page.fill("#ob-name", "Mast by the gate");
        page.fill("#ob-places", (String)
                page.evaluate("() => window.yalosSheet.map.getView().getCenter().map(Math.round).join(' ')"));
        pressed("#obstacle-form .button:has-text('Add it')");
        assertThat(page.textContent("#obstacles")).contains("Mast by the gate");
        assertThat(page.inputValue("#ob-name") + page.inputValue("#ob-places")).isEmpty();

        page.selectOption("#ob-kind", new SelectOption().setIndex(1));
        page.fill("#ob-name", "Mast on the hill");
        page.fill("#ob-places", "1 2");
        Object kind = page.inputValue("#ob-kind");
        pressed("#undo");
        assertThat(page.textContent("#obstacles")).doesNotContain("Mast by the gate");
        assertThat(List.of(page.inputValue("#ob-kind"), page.inputValue("#ob-name"), page.inputValue("#ob-places")))
                .isEqualTo(List.of(kind, "Mast on the hill", "1 2"));
        assertThat(page.isVisible("#ob-name")).isTrue();
    }

    /** What lies in a drawer is asked for once more when the plan changed while it was on its way. */
    @Test
    void aDrawerFollowsAChangeMeanwhile() {
        List<Route> held = new ArrayList<>();
        Predicate<String> day = address -> address.endsWith("/sorties/day");
        page.route(day, held::add);
        page.waitForRequest(request -> day.test(request.url()), () -> show(page, "/blocks/2/sorties"));
        page.evaluate("() => document.body.dispatchEvent(new Event('sheet-changed'))");
        page.waitForRequest(
                request -> day.test(request.url()), () -> held.remove(0).resume());
        page.unroute(day);
        held.forEach(Route::resume);
        page.waitForSelector("#day-chart[data-running]");
    }

    private void pressed(String button) {
        String version = page.getAttribute("#book", "data-version");
        page.click(button);
        settle(version);
    }

    private void settle(String version) {
        page.waitForFunction(
                "version => document.getElementById('book').dataset.version !== version"
                        + " && !document.documentElement.hasAttribute('data-changing')",
                version);
    }
}
