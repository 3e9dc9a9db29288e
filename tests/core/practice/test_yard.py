"""The yard: its dangers, its scale against its own true loads, runs as texts, challenges by a
perfect player.

Expected: true loads by the lever model of the core, which is held against the worked cases; what a
perfect player may say follows from the tickets, read here by a player that knows nothing of the
judge.
"""

import datetime
import random
import unittest

from noxel.core.evaluate import evaluate
from noxel.core.mechanics import weigh
from noxel.core.plates import contradictions
from noxel.core.practice import (
    INTERVALS,
    Card,
    Run,
    Word,
    Yard,
    act_in,
    after,
    begin,
    challenge_view,
    do_act,
    play,
    read_run,
    true_loads,
    yard_view,
)
from noxel.core.practice.acts import ACTS
from noxel.core.practice.challenge import (
    asked_of,
    budget_of,
    judge,
    standing_traps,
    still_over,
    traps_told,
)
from noxel.core.practice.rigs import RigKind, as_seen, make_rig
from noxel.core.practice.yard import seen_rig
from noxel.core.quantities import KG
from noxel.errors import InputError
from tests import some

KINDS: tuple[RigKind, ...] = ("bars", "plain", "torsion", "pin", "caravan", "motorhome")
WEIGH = ("on", "ask", "wait", "off")
SLACKEN = ("chock", "slack", "unchock")


def after_acts(yard: Yard, *acts: str) -> Yard:
    for act in acts:
        yard = do_act(yard, act)
    return yard


class Rigs(unittest.TestCase):
    def test_labels_agree_with_each_other_and_one_limit_is_exceeded(self) -> None:
        checks = {
            "rear_axle": "rear axle",
            "gross": "loaded",
            "trailer": "in total",
            "combination": "combination",
        }
        for kind in KINDS:
            for seed in range(15):
                rig = make_rig(kind, str(seed))
                self.assertEqual(
                    [],
                    [
                        contradiction.code
                        for contradiction in contradictions(as_seen(rig))
                        if contradiction.level == "warning"
                    ],
                    (kind, seed),
                )
                self.assertEqual(
                    [], still_over(begin(Run(kind=kind, seed=str(seed)))), (kind, seed)
                )
                for over, words in checks.items():
                    found = still_over(begin(Run(kind=kind, seed=str(seed), over=over)))  # type: ignore[arg-type]
                    self.assertTrue(
                        any(words in label.lower() for label, _ in found), (kind, seed, over, found)
                    )


class Acts(unittest.TestCase):
    def refused(self, yard: Yard, act: str, words: str) -> None:
        with self.assertRaisesRegex(InputError, words):
            do_act(yard, act)

    def test_dangers_stop_with_their_reason(self) -> None:
        yard = begin(Run(seed="4c19"))
        self.refused(yard, "uncouple", "Chocks are not set")
        self.refused(do_act(yard, "chock"), "uncouple", "under tension; they can strike")
        self.refused(yard, "slack", "Chocks first")
        self.refused(after_acts(yard, *SLACKEN), "go", "slack bars")
        self.refused(after_acts(yard, *SLACKEN), "engage", "Chocks first")
        on = after_acts(yard, "on", "ask")
        self.refused(on, "off", "has not been taken")
        self.refused(on, "out:1", "Do not walk about")
        apart = after_acts(yard, "chock", "slack", "uncouple")
        self.refused(apart, "unchock", "would roll")
        self.refused(apart, "move:3:100", "tip on its jack")
        self.refused(apart, "go", "stay behind")
        self.refused(yard, "tongue:scale", "chock before")
        self.refused(after_acts(yard, "chock", "slack"), "tongue:scale", "measured uncoupled")
        self.refused(
            after_acts(begin(Run(kind="pin", seed="1")), "chock", "uncouple"),
            "tongue:beam",
            "crushed",
        )
        self.refused(
            after_acts(begin(Run(kind="pin", seed="1")), "chock", "uncouple"),
            "tongue:scale",
            "such a scale is made for",
        )
        self.refused(do_act(yard, "chock"), "on", "chocks are still")
        self.refused(do_act(yard, "out:1"), "go", "not in yet")
        for act in (
            "jump",
            "out:0",
            "out:99",
            "tank:7:10",
            "tank:0:400",
            "tank:1:100",
            "tongue:guess",
            "drop:0",
            "ball:99",
            "",
        ):
            with self.assertRaises(InputError, msg=act):
                do_act(
                    after_acts(yard, "chock", "slack", "uncouple")
                    if act.startswith("ball")
                    else yard,
                    act,
                )

    def test_a_run_is_its_text_and_plays_alike(self) -> None:
        own, harder = Run(own=("a1b2", 3)), Run(difficulty=3, seed="2026-11-25")
        for run in (
            Run(kind="bars", seed="4c19", over="rear_axle"),
            Run(kind="caravan", unit="kg", terms="europe"),
            harder,
            own,
        ):
            self.assertEqual(read_run(str(run)), run)
        yard = after_acts(begin(Run(seed="z")), *WEIGH, "chock", "slack", "uncouple", *WEIGH)
        again = play(read_run(str(yard.run)))
        self.assertEqual(
            (again.tickets, again.minutes, again.spent), (yard.tickets, yard.minutes, 19)
        )
        self.assertEqual(
            yard.minutes,
            sum(ACTS[act].minutes for act in (*WEIGH, "chock", "slack", "uncouple", *WEIGH)),
        )

    def test_whatever_is_done_the_run_plays_to_the_same_yard(self) -> None:
        dice = random.Random(3)
        for number in range(30):
            yard = begin(Run(kind=KINDS[number % 6], seed=f"w{number}"))
            for _ in range(20):
                seen = yard_view(yard, truth=True)
                acts = [each.act for each in seen.acts]
                acts += [
                    f"{word}:{item.index}:{dice.randrange(-100, 900)}"
                    for item in seen.items
                    for word in ("move", "swap", "drop", "take")
                ]
                acts += [f"tank:{tank.index}:{dice.randrange(0, 101)}" for tank in seen.tanks]
                yard, view = act_in(yard, dice.choice(acts))
                self.assertTrue(view.said or view.refused)
            again = play(read_run(str(yard.run)))
            self.assertEqual(
                (again.tickets, again.rig, again.minutes, again.log),
                (yard.tickets, yard.rig, yard.minutes, yard.log),
            )

    def test_texts_that_are_no_runs(self) -> None:
        for text, words in (
            ("", "does not begin"),
            ("yard2/bars.lb.north_america/1/", "version 2"),
            ("yard1/tank.lb.north_america/1/", "not a rig that the yard"),
            ("yard1/bars.stone.north_america/1/", "units"),
            ("yard1/bars.lb.north_america/a b/", "seed"),
            ("yard1/bars", "cut off"),
            ("yard1/bars.lb.north_america/1/on.__import__", "Act 2"),
            ("yard1/bars.lb.north_america/1/" + ".".join(["on"] * 400), "400 acts"),
            ("yard1/bars.lb.north_america/1/uncouple", "Chocks"),
            ("yard1/bars.lb.north_america/1/" + ".".join(["on"] * 301), "301 acts"),
            *(
                (f"yard1/own.{own}/1/", "own rigs")
                for own in ("x", "x.y", "x_.1", "x.²", "x.12345678")
            ),
        ):
            with self.assertRaisesRegex(InputError, words):
                play(read_run(text))

    def test_as_many_acts_as_are_played_and_a_copy_of_an_own_rig(self) -> None:
        many = read_run("yard1/bars.lb.north_america/1/" + ".".join(["on"] * 300))
        self.assertEqual(len(many.acts), 300)
        self.assertEqual(read_run("yard1/own.x-7.1234567/1/").own, ("x-7", 1_234_567))

    def test_what_measured_the_tongue_is_kept_with_the_figure(self) -> None:
        """The display in a ball mount climbs at first: only its second reading is one."""
        yard = begin(Run(kind="plain", seed="8"))
        for acts, kept in (
            (["chock", "tongue:mount"], []),
            (["chock", "tongue:mount", "tongue:mount"], ["ball_mount_scale"]),
            (["chock", "uncouple", "tongue:scale"], ["scale"]),
        ):
            weigh_ins = seen_rig(after_acts(yard, *acts)).weigh_ins
            self.assertEqual(
                [
                    tongue_measurement.method
                    for entry in weigh_ins
                    for tongue_measurement in entry.tongue_measurements
                ],
                kept,
            )

    def test_raising_the_coupler_changes_little_on_one_axle_and_much_on_two_that_do_not_share(
        self,
    ) -> None:
        change = {}
        for kind in ("plain", "torsion"):
            yard = after_acts(begin(Run(kind=kind, seed="8")), "chock", "uncouple")
            level, raised = (
                true_loads(yard.rig, "slack")["tongue_static"]
                for yard in (yard, do_act(yard, "ball:13"))
            )
            change[kind] = (raised - level) / KG["lb"]
        self.assertTrue(-50 < change["plain"] < -5, change)
        self.assertGreater(change["torsion"], 40)

    def test_what_moves_in_the_yard_moves_on_the_scale(self) -> None:
        yard = begin(Run(kind="plain", seed="6"))
        at = next(index for index, load in enumerate(yard.rig.loads) if load.on == "trailer")
        load, length = yard.rig.loads[at], 1.0
        trailer = yard.rig.trailer
        if trailer and trailer.geometry.coupler_to_axles and load.position:
            length = trailer.geometry.coupler_to_axles.m
            place = round(load.position.m * 100) + 100
            before, moved = (
                true_loads(yard.rig, "slack")["tongue_static"]
                for yard in (yard, do_act(yard, f"move:{at}:{place}"))
            )
            self.assertAlmostEqual(before - moved, load.kg * 1.0 / length, 3)  # m·d/L by hand
        dropped = true_loads(do_act(yard, f"drop:{at}").rig, "slack")["trailer_gross"]
        self.assertAlmostEqual(true_loads(yard.rig, "slack")["trailer_gross"] - dropped, load.kg, 6)


class TheScale(unittest.TestCase):
    def test_true_loads_always_agree_with_the_scale_within_its_pm(self) -> None:
        looked = 0
        for number in range(300):
            kind, unit = KINDS[number % 6], ("lb", "kg")[number % 2]
            yard = begin(Run(kind=kind, unit=unit, seed=f"s{number}"))  # type: ignore[arg-type]
            acts = [
                *WEIGH,
                *(
                    (*SLACKEN, *WEIGH)
                    if kind == "bars" and number % 4
                    else SLACKEN
                    if kind == "bars"
                    else ()
                ),
                "chock",
                "uncouple",
                *WEIGH,
            ]
            yard = after_acts(yard, *acts)
            rig = seen_rig(yard)
            truth = true_loads(yard.rig, "engaged" if kind == "bars" else "none")
            for key, figure in weigh(rig, rig.weigh_ins[-1]).figures.items():
                if key in truth:
                    looked += 1
                    self.assertLessEqual(
                        abs(figure.value - truth[key]),
                        figure.plus_minus * (1 + 1e-9),
                        (number, kind, key),
                    )
        self.assertGreater(looked, 2000)


def perfect(yard: Yard) -> tuple[Yard, dict[str, Word]]:
    """A player that reads: adds up tickets, looks at their numbers, keeps people aboard, weighs
    again what is doubtful.
    """

    def taken(now: Yard) -> Yard:
        for _ in range(3):
            now = after_acts(now, *WEIGH)
            ticket = now.tickets[-1]
            ours = f"{now.tickets[0].number.split('-')[0]}-{len(now.tickets):04d}"
            if sum(ticket.readings.values()) == ticket.gross and ticket.number == ours:
                break
        return now

    yard = taken(yard)
    if yard.rig.hitch.weight_distribution:
        yard = taken(after_acts(yard, *SLACKEN))
    yard = after_acts(yard, "chock", "uncouple")
    for index, load in enumerate(yard.rig.loads):
        if not load.aboard and load.category == "people":
            yard = do_act(yard, f"in:{index}")
    yard = taken(yard)
    evaluation = evaluate(seen_rig(yard))
    words: dict[str, Word] = {}
    for check in evaluation.checks:
        words[check.id] = (
            "over"
            if check.status == "over"
            else "within"
            if check.status == "within"
            else "cannot_tell"
        )
    return yard, words


class Challenges(unittest.TestCase):
    def test_a_perfect_player_is_never_told_that_it_was_wrong(self) -> None:
        dice = random.Random(2026)
        words_said = {"over": 0, "within": 0, "cannot_tell": 0}
        for number in range(some(500)):
            difficulty = 1 + number % 3
            yard, words = perfect(
                begin(
                    Run(
                        difficulty=difficulty,
                        seed=f"p{dice.randrange(10**6)}",
                        unit=("lb", "kg")[number % 2],
                    )
                )
            )
            self.assertEqual(standing_traps(yard), [], yard.run)
            minutes, money = budget_of(yard)
            self.assertLessEqual(yard.minutes, minutes)
            self.assertLessEqual(yard.spent, money)
            for judgement in judge(yard, words):
                self.assertTrue(judgement.right, (str(yard.run), judgement))
                words_said[judgement.word] += 1
                if judgement.word != "cannot_tell":  # what is said for certain is so
                    self.assertEqual(
                        judgement.word == "over",
                        judgement.true > judgement.limit,
                        (str(yard.run), judgement),
                    )
        self.assertGreater(
            min(words_said["over"], words_said["within"]), some(500) / 2.5, words_said
        )

    def test_one_word_for_everything_does_not_get_far_and_weighing_twice_overspends(self) -> None:
        words: tuple[Word, ...] = ("within", "over", "cannot_tell")
        right, asked = dict.fromkeys(words, 0), 0
        for number in range(some(60)):
            start = begin(Run(difficulty=1 + number % 3, seed=f"c{number}"))
            yard, _ = perfect(start)
            checks = [check for check, _ in asked_of(yard)]
            asked += len(checks)
            for word in words:
                judged = judge(yard, dict.fromkeys(checks, word))
                right[word] += sum(row.right for row in judged)
            again = after_acts(yard, *WEIGH, *WEIGH)
            minutes, money = budget_of(yard)
            self.assertTrue(again.minutes > minutes or again.spent > money, str(yard.run))
        self.assertLess(max(right.values()) / asked, 0.65, right)

    def test_three_careless_players_pay_for_it(self) -> None:
        """A hasty one believes every ticket, one weighs once and guesses, one says within."""
        shares = {"hasty": 0.0, "once": 0.0, "within": 0.0}
        runs = some(150)
        for number in range(runs):
            start = begin(Run(difficulty=1 + number % 3, seed=f"s{number}"))
            slacken = (*SLACKEN, *WEIGH) if start.rig.hitch.weight_distribution else ()
            hasty = after_acts(start, *WEIGH, *slacken, "chock", "uncouple", *WEIGH)
            for player, yard in (
                ("hasty", hasty),
                ("once", after_acts(start, *WEIGH)),
                ("within", hasty),
            ):
                words: dict[str, Word] = {}
                for check in evaluate(seen_rig(yard)).checks:
                    known = check.status in ("over", "within") and player != "within"
                    guess: Word = "cannot_tell" if player == "hasty" else "within"
                    words[check.id] = check.status if known else guess  # type: ignore[assignment]
                view = challenge_view(yard, words)
                shares[player] += view.right / view.of / runs
        # a reader has all of them right, in the test above
        self.assertLess(shares["hasty"], 0.9, shares)
        self.assertLess(max(shares["once"], shares["within"]), 0.75, shares)

    def test_a_trap_believed_is_told(self) -> None:
        fell = 0
        for number in range(40):
            yard = begin(Run(difficulty=3, seed=f"t{number}"))
            yard = after_acts(
                yard,
                *WEIGH,
                "chock",
                *(("slack",) if yard.rig.hitch.weight_distribution else ()),
                "uncouple",
                *WEIGH,
            )
            standing = standing_traps(yard)
            self.assertTrue(standing)
            told = [here for _, here in traps_told(yard)]
            self.assertEqual(told, [trap in standing for trap in yard.traps])
            cautious_view = challenge_view(yard, {})
            # every word holds, and each trap that still stands costs one
            self.assertEqual(cautious_view.of - cautious_view.right, len(standing))
            said: dict[str, Word] = {
                check.id: "over" if check.status == "over" else "within"
                for check in evaluate(seen_rig(yard)).checks
            }
            fell += sum(not judgement.right for judgement in judge(yard, said))
            cautious: dict[str, Word] = {check: "cannot_tell" for check, _ in asked_of(yard)}
            self.assertTrue(all(judgement.right for judgement in judge(yard, cautious)))
        self.assertGreater(fell, 20)


class Spacing(unittest.TestCase):
    def test_leitner(self) -> None:
        """Each box is looked into half as often as the one before: 1, 2, 4, 8, 16 days; a slip goes
        back to the first.
        """
        day, card = (
            datetime.date(2026, 3, 1),
            after(None, known=False, today=datetime.date(2026, 3, 1)),
        )
        self.assertEqual(card, Card(1, datetime.date(2026, 3, 2)))
        for box, days in zip((2, 3, 4, 5), INTERVALS[1:], strict=True):
            card = after(card, known=True, today=day)
            self.assertEqual(card, Card(box, day + datetime.timedelta(days=days)))
        self.assertTrue(after(card, known=True, today=day).learned)
        self.assertEqual(after(card, known=False, today=day).box, 1)
