"""The page's own logic, a module at a time: where the drawing puts its posts, how a path names what
it means, what is sent when an element was taken away meanwhile.
"""

import itertools
from typing import Any

from noxel.core.evaluate import evaluate
from noxel.core.rig import parse_rig
from tests.browser.stage import OnStage
from tests.page.bundle import bundled
from tests.truth import rig_of


class Layout(OnStage):
    def lay_out(self, document: Any, width: int, sizes: str = "WIDE") -> Any:
        """The drawing of a rig as wide as that; positions as plain figures. [px]"""
        evaluation = evaluate(parse_rig(document)).model_dump(mode="json")
        page = self.page("/api/health")
        page.evaluate(bundled("drawing/layout.ts"))
        return page.evaluate(
            "([e, sizes, width]) => own.layOut(e.geometry, e.towing, e.checks, own[sizes], width)",
            [evaluation, sizes, width],
        )

    def test_posts_stand_in_their_order_and_inside(self) -> None:
        for name, count in (("check--three-passes", 4), ("check--fifth-wheel", 4)):
            for width, sizes in ((1200, "WIDE"), (844, "SHORT"), (390, "NARROW"), (390, "STRIP")):
                drawn = self.lay_out(rig_of(name), width, sizes)
                posts = drawn["posts"]
                self.assertEqual(len(posts), count)
                places = [
                    (post["x"] - post["width"] / 2, post["x"] + post["width"] / 2) for post in posts
                ]
                self.assertEqual(places, sorted(places))
                for (_, right), (left, _) in itertools.pairwise(places):
                    self.assertLess(right, left)
                self.assertTrue(places[0][0] >= 0 and places[-1][1] <= width, (name, width, places))

    def test_a_post_is_filled_by_the_share_that_is_used(self) -> None:
        document = rig_of("check--three-passes")
        actual = document["weigh_ins"][0]["passes"][0]["readings"]["rear"]
        for rating, fill, beyond in (
            (actual * 2, 42, False),  # half of 84 pixels
            (actual, 84, False),
            (actual / 1.1, 84, True),
        ):
            document["vehicle"]["ratings"]["gawr_rear"] = rating
            [post] = [
                post for post in self.lay_out(document, 1200)["posts"] if post["id"] == "rear"
            ]
            self.assertAlmostEqual(post["fill"], fill, places=4)
            self.assertEqual(post["beyond"] > 0, beyond)
            self.assertFalse(post["expected"])

    def test_what_is_only_expected_is_told_from_what_was_weighed(self) -> None:
        document = {**rig_of("check--three-passes"), "weigh_ins": []}
        posts = {post["id"]: post for post in self.lay_out(document, 1200)["posts"]}
        self.assertTrue(posts["trailer"]["expected"])
        self.assertIsNone(posts["trailer"]["weighed"])


class Identities(OnStage):
    def run_in_page(self, script: str, *given: Any) -> Any:
        page = self.page("/api/health")
        page.evaluate(bundled("api/identity.ts"))
        return page.evaluate(script, list(given))

    def test_a_path_names_what_stands_there_now(self) -> None:
        rig = {
            "loads": [{"id": "ka", "mass": 1}, {"id": "kb", "mass": 2}],
            "trailer": {"gawr": [3]},
        }
        for path, name, value in (
            ("loads[1].mass", "loads[kb].mass", 2),
            ("loads[kb].mass", "loads[kb].mass", 2),
            ("trailer.gawr[0]", "trailer.gawr[0]", 3),  # a number has no identity
            ("loads[5].mass", "loads[5].mass", None),
        ):
            self.assertEqual(self.run_in_page("([r, p]) => own.named(r, p)", rig, path), name)
            self.assertEqual(self.run_in_page("([r, p]) => own.at(r, p) ?? null", rig, path), value)

    def test_an_element_put_in_gets_an_identity_of_its_own(self) -> None:
        change = {"path": "loads[1]", "op": "insert", "value": {"mass": 5}}
        first, second = (
            self.run_in_page("([r, c]) => own.sealed(r, c)", {"loads": [{"id": "ka"}]}, change)
            for _ in range(2)
        )
        self.assertEqual((first["path"], first["value"]["mass"]), ("loads", 5))
        self.assertNotEqual(first["value"]["id"], second["value"]["id"])

    def test_what_was_taken_away_is_added_again_with_what_was_typed(self) -> None:
        typed = [{"path": "loads[ka].mass", "op": "type", "text": "66"}]
        added = self.run_in_page(
            "([c, gone, outer]) => own.addedAgain(c, gone, outer)",
            typed,
            "loads[ka]",
            {"id": "ka", "name": "chest", "mass": 3},
        )
        put, text = added
        self.assertEqual((put["op"], put["value"]["name"]), ("insert", "chest"))
        self.assertEqual(text["path"], f"loads[{put['value']['id']}].mass")
        self.assertNotEqual(put["value"]["id"], "ka")


class Kept(OnStage):
    """The last answers of a paired device, which opens the page where there is no network."""

    def test_answers_are_there_again_but_for_what_must_be_fresh(self) -> None:
        context = self.browser.new_context()
        self.addCleanup(context.close)
        home = "https://paired.invalid/"  # answered right here: only over TLS is anything kept
        context.route("**/*", lambda route: route.fulfill(body="<p>", content_type="text/html"))

        def opened() -> Any:
            page = context.new_page()
            page.goto(home)
            page.evaluate(bundled("../node_modules/@tanstack/query-core/build/modern/index.js"))
            page.evaluate("window.queries = new own.QueryClient()")
            page.evaluate(bundled("api/kept.ts"))
            page.evaluate("own.keepAnswers(queries)")
            return page

        def names(page: Any) -> Any:
            return page.evaluate("queries.getQueryCache().getAll().map((q) => q.queryKey[0])")

        page = opened()
        page.evaluate(
            """async () => {
              queries.setQueryData(["rigs"], [{ name: "dome" }]);
              queries.setQueryData(["share"], { on: true });
              queries.setQueryData(["old"], 1, { updatedAt: Date.now() - 61 * 86_400_000 });
              const refused = { queryKey: ["rigs"], queryFn: () => Promise.reject(), retry: false };
              await queries.fetchQuery(refused).catch(() => {});
              Object.defineProperty(document, "hidden", { value: true });
              document.dispatchEvent(new Event("visibilitychange"));
            }"""
        )
        again = opened()
        again.wait_for_function("async () => (await indexedDB.databases()).length > 0")
        self.assertEqual(names(opened()), ["rigs"])
        state = opened().evaluate("queries.getQueryState(['rigs'])")
        self.assertEqual((state["data"], state["status"]), ([{"name": "dome"}], "success"))
        again.evaluate("own.forgetAnswers()")
        self.assertEqual(names(opened()), [])
