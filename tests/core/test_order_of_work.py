"""The order of work: what waits for what, in every school, on the demo's figures and on every body plan."""

import re
from dataclasses import replace
from itertools import combinations

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.core.figures_worked import BY_NAME, EVERY
from wembit.core.craft.cautions import CAUTIONS
from wembit.core.craft.schools import QUESTIONS, asked, way
from wembit.core.work.amounts import plainly, spoken
from wembit.core.work.forks import AT, fork_at
from wembit.core.work.methods import GENERAL, METHODS
from wembit.core.work.order import dried_together, needs_of, steps
from wembit.core.work.step import GROUPS, RANK, WHY
from wembit.core.work.worked import Wool, Worked, families

ENOUGH = 3  # figures that raise a question
SCHOOLS = st.fixed_dictionaries({}, optional={key: st.sampled_from(list(q.ways)) for key, q in QUESTIONS.items()})
NAMES = st.sampled_from(sorted(EVERY))


def by_id(name, school=None, fitted=()):
    return {step.id: step for step in steps(EVERY[name], school or {}, fitted)}


def places(name, school=None) -> dict[str, int]:
    return {step.id: n for n, step in enumerate(steps(EVERY[name], school or {}))}


@settings(max_examples=80)
@given(NAMES, SCHOOLS)
def test_in_every_school_each_step_comes_after_what_it_waits_for(name, school):
    found = steps(EVERY[name], school)
    place = {step.id: n for n, step in enumerate(found)}
    assert len(place) == len(found), "no step stands twice"
    for step in found:
        assert all(place[first] < place[step.id] for first in step.waits_for if first in place), step.id
        assert all(after.why in WHY for after in step.after)
        assert step.kind in RANK
        assert step.kind in GROUPS


@settings(max_examples=80)
@given(NAMES, SCHOOLS)
def test_no_part_and_no_wool_is_forgotten(name, school):
    parts, found = EVERY[name], steps(EVERY[name], school)
    taken = [wool for step in found for wool in step.wools]
    assert sum(wool.grams for wool in taken) == pytest.approx(sum(wool.grams for part in parts for wool in part.wools))
    worked = {key for step in found for key in step.parts}
    assert worked >= {part.key for part in parts if part.wools or part.bead_mm or part.line == "thread"}
    assert found[0].id == "gather"
    assert found[-1].id == "away"
    for step in found:
        assert all(caution in CAUTIONS for caution in step.cautions)
        assert step.minutes > 0
        assert 0 < step.first <= 1
        assert step.method in GENERAL or not step.method


@settings(max_examples=60)
@given(NAMES, SCHOOLS)
def test_what_is_felted_by_itself_is_made_once_and_joined_once(name, school):
    ids = [step.id for step in steps(EVERY[name], school)]
    for part in families(EVERY[name]):
        if part.is_made and not part.is_bead:
            assert ids.count(f"make:{part.key}") == 1
            assert ids.count(f"join:{part.key}") <= 1


@settings(max_examples=60)
@given(NAMES, SCHOOLS)
def test_wired_and_thin_things_are_never_stabbed_with_a_coarse_needle_or_a_bundle(name, school):
    parts = {part.key: part for part in families(EVERY[name])}
    for step in steps(EVERY[name], school):
        part = parts.get(step.part)
        if part and part.thin and step.needles and not step.id.startswith("join:"):
            assert step.needles == "one 40, shallow and aslant", step.id
        if part and part.wire and step.id.startswith("make:"):
            assert "wire" in step.cautions, "the caution stands where the step is done"


@settings(max_examples=60)
@given(NAMES, SCHOOLS)
def test_a_general_way_is_said_once_and_no_sentence_thrice_in_the_steps(name, school):
    found = steps(EVERY[name], school)
    sentences = [s for step in found for s in re.split(r"(?<=[.?]) ", plainly(step.words)) if len(s.split()) > 12]
    for sentence in sentences:
        assert sentences.count(sentence) <= 2, sentence
    general = " ".join(method.general for method in METHODS.values())
    assert not any(sentence in general for sentence in sentences)


def signature(name, school):
    """What a school changes in the work itself, words left out."""
    return [
        (
            step.id,
            step.needles,
            round(step.minutes, 3),
            step.compare,
            step.cautions,
            step.wait_hours,
            step.first,
            step.method,
        )
        for step in steps(EVERY[name], school)
    ]


@pytest.mark.parametrize("question", list(QUESTIONS))
def test_every_way_of_every_school_changes_steps_and_not_words_alone(question):
    for one, two in combinations(QUESTIONS[question].ways, 2):
        told = any(signature(name, {question: one}) != signature(name, {question: two}) for name in EVERY)
        if question == "wool":  # it needs tops for a body
            tops = replace(EVERY["ball"][0], wools=(Wool("core", "sea", "core", 9.0, form="tops"),))
            minutes = [[(s.id, plainly(s.words)) for s in steps([tops], {question: which})] for which in (one, two)]
            assert minutes[0] != minutes[1]
        else:
            assert told, f"{question}: {one} is as {two}"


def test_what_shares_a_wire_through_a_body_is_threaded_bare_before_it_is_wound():
    """A wound arm of 10 mm does not go through a mantle: bore, push the bare wire through, then wind."""
    place = places("Octopus")
    assert place["make:mantle"] < place["thread:arm 25"] < place["make:arm 25"] < place["join:arm 25"]
    found = by_id("Octopus")
    thread = found["thread:arm 25"]
    assert thread.title == "Thread 4 × bare wire through mantle"
    assert ("thread:arm 25", "threaded") in found["make:arm 25"].after
    assert {"awl", "wire ends"} <= set(thread.cautions)
    assert found["make:arm 25"].title == "Wind 8 × arm on wire"
    assert found["make:arm 25"].parts == ("arm 25", "arm 68", "arm 112", "arm 155"), "eight alike are one piece of work"
    assert "make:arm 68" not in found


def test_toes_are_bound_to_the_bare_wire_of_the_leg_and_wound_before_it():
    found, place = by_id("Heron"), places("Heron")
    assert place["wire:leg"] < place["bind:front toe"] < place["make:front toe"] < place["make:leg"]
    assert ("make:front toe", "inwards") in found["make:leg"].after
    assert "join:front toe" not in found
    assert "30 mm stay bare" in plainly(found["wire:leg"].words)
    assert "25 mm at either end stay bare" in plainly(found["wire:neck"].words)
    assert "30 mm of bare wire" in plainly(found["join:leg"].words)
    assert "other bare end of neck in, 25 mm deep" in plainly(found["join:head"].words)
    assert place["join:leg"] < place["join:thigh tuft"], "the tuft lies round the leg"


def test_without_wire_nothing_is_bored_for():
    found = by_id("Hare, crouched", {"attach": "bored"})
    assert found["join:foreleg"].method == "loose end"
    assert "bare" not in found["join:foreleg"].words
    heron = by_id("Heron", {"attach": "bored"})
    assert heron["join:leg"].method == "wire in"
    assert heron["join:leg"].wait_hours == 12
    assert "glue" in heron["join:leg"].cautions
    assert "awl" in heron["join:leg"].cautions


# flat pieces in thin layers on the pad, rings from a strand, filling wrapped, limbs wound, plumes not felted through,
# a ball from a pinch where it is tiny  # common practice
@pytest.mark.parametrize(
    ("name", "part", "method"),
    [
        ("Hare, crouched", "ear", "flat"), ("Hare, crouched", "body", "wound"), ("Hare, crouched", "hind foot", "rod"),
        ("Hermit crab", "mouth rim", "ring"), ("Hermit crab", "shell whorl 1", "wrapped"),
        ("Hermit crab", "big claw", "thick flat"),
        ("Hermit crab", "leg front", "limb"), ("Lighthouse", "cottage", "squared"), ("Lighthouse", "rock", "domed"),
        ("Lighthouse", "tower lower", "tapered"), ("Heron", "body", "built"), ("Snail", "shell coil", "rolled"),
    ],
)  # fmt: skip
def test_each_shape_and_material_has_its_way(name, part, method):
    found = by_id(name)[f"make:{part}"]
    assert found.method == method
    assert found.title.startswith(METHODS[method].title.split(" {")[0])


def test_a_tiny_ball_is_rolled_from_a_pinch_and_locks_are_taken_when_they_are_joined():
    tiny = Worked("nose", "nose", "nose", 1, None, "firm", (Wool("core", "soot", "nose", 0.04),), shape="sphere", thick_mm=7,
                  long_mm=7)  # fmt: skip
    assert next(step for step in steps([tiny], {}) if step.id == "make:nose").method == "pinch"
    plume = by_id("Heron")["join:crest plume"]
    assert "make:crest plume" not in by_id("Heron")
    assert plume.method == "locks"
    assert plume.wools


def test_a_cover_of_the_same_colour_hides_the_seam_and_another_colour_is_finished_first():
    hare, house = places("Hare, crouched"), places("Lighthouse")
    assert hare["join:thigh"] < hare["cover:body"]
    assert house["cover:tower band"] < house["join:tower band"]
    assert house["cover:roof"] < house["join:finial"]
    assert house["cover:tower lower"] < house["detail:window"]
    crab = places("Hermit crab")
    assert crab["cover:shell whorl 1"] < crab["join:mouth rim"] < crab["join:body"], "the shell before the crab goes in"


def test_flat_pieces_take_their_patches_on_the_pad():
    found = by_id("Hare, crouched")
    assert ("detail:ear", "on the pad") in found["join:ear"].after


def test_a_hedgehogs_coat_is_planted_before_its_ears_are_fitted():
    place = places("Hedgehog")
    assert place["prepare:locks"] < place["coat:body"] < place["trim:body"] < place["join:ear"]
    assert place["join:face"] < place["coat:body"]
    end = places("Hedgehog", {"trim": "end"})
    assert end["trim:body"] > end["join:ear"]
    assert "trim:body" not in places("Hedgehog", {"trim": "row"})
    coat = plainly(by_id("Hedgehog")["coat:body"].words)
    assert "locks of 44 mm" in coat
    assert "13 mm stand in the end" in coat


def test_eyes_early_in_the_middle_or_last():
    early, middle, last = (places("Hare, crouched", {"eyes": when}) for when in ("early", "middle", "last"))
    assert early["make:head"] < early["sockets:head"] < early["eyes:eye"] < early["cover:head"], "on the bald head"
    assert last["eyes:eye"] > last["join:ear"]
    assert middle["join:ear"] > middle["eyes:eye"] > middle["cover:head"]


def test_eyes_on_a_thin_stalk_are_sewn_and_two_shanks_do_not_meet_inside():
    crab = by_id("Hermit crab")["eyes:eye"]
    assert "too thin to be bored" in crab.words
    assert crab.wait_hours == 0
    assert "glue" not in crab.cautions
    head = Worked("head", "head", "head", 1, None, "firm", (Wool("core", "oat", "core", 2.0),), thick_mm=20)
    eye = Worked("eye", "eye", "eye", 2, "head", "", (), bead_mm=5, shank_mm=12)
    words = plainly(next(step for step in steps([head, eye], {}) if step.id == "eyes:eye").words)
    assert "12 mm deep" in words
    assert "cut each to 8 mm" in words
    short = [head, replace(eye, shank_mm=6)]
    assert "meet" not in next(step for step in steps(short, {}) if step.id == "eyes:eye").words


def test_a_face_is_shaped_as_the_school_has_it():
    plain = by_id("Otter, upright")
    assert {"sockets:head", "mouth:muzzle"} <= set(plain)
    assert "brow" in by_id("Otter, upright", {"sculpt": "full"})["mouth:muzzle"].words
    assert not {"sockets:head", "mouth:muzzle"} & set(by_id("Otter, upright", {"sculpt": "none"}))
    assert "mouth:head" not in by_id("Heron"), "a bill has no mouth to draw in"
    assert not any(key.startswith("mouth") for key in by_id("flower")), "the heart of a flower is no face"


def test_a_pair_is_worked_from_equal_halves_unless_it_need_not_match():
    found = by_id("Hare, crouched")
    assert "foreleg in 2, 0.5 g each" in plainly(found["prepare:halves"].words), "a gram a layer"
    assert ("prepare:halves", "divided") in found["make:foreleg"].after
    assert "within a few per cent" in found["make:foreleg"].compare
    assert "Alike enough" in found["make:ear"].compare, "ears may differ more than legs that carry"
    free = by_id("Hare, crouched", {"twins": "free"})
    assert "prepare:halves" not in free
    assert "need not match" in free["make:foreleg"].words
    assert "within a few" not in free["make:foreleg"].compare


def test_what_carries_is_reinforced_and_what_is_soft_does_not_carry():
    otter = by_id("Otter, upright")
    assert "with a pin first" in otter["join:hind foot"].words
    assert "crosswise over the joint" in otter["join:hind foot"].words
    assert "crosswise" not in by_id("Heron")["join:thigh tuft"].words
    part = by_id("Otter, upright", {"parts": {"ear": {"attach": "stitch"}}})
    assert part["join:ear"].method == "stitch"
    assert part["join:head"].method == "loose end"
    pinned = by_id("Otter, upright", {"attach": "pinned"})
    assert ("try:body", "tried") in pinned["join:tail"].after


def test_clay_is_baked_first_and_fittings_come_before_the_last_look():
    found = steps(EVERY["Snail"], {}, [("clay", "beak"), ("brooch_back", "")])
    place = {step.id: n for n, step in enumerate(found)}
    assert place["prepare:clay"] < place["make:foot"] < place["fit:1"] < place["finish"]
    told = {step.id: step for step in found}
    assert "clay" in told["prepare:clay"].cautions
    assert "wire" in told["fit:1"].cautions
    assert (told["prepare:clay"].minutes, told["prepare:clay"].wait_hours) == (20, 2)


def test_thread_that_is_a_part_is_drawn_through_once():
    crab = by_id("Hermit crab", None, [("thread", "for the feelers")])
    assert "draw:feeler" in crab
    assert "fit:0" not in crab
    assert "Draw it right through" in by_id("Hare, crouched", None, [("thread", "whiskers")])["fit:0"].words


def test_the_head_or_the_smallest_may_come_first():
    assert places("Hare, crouched")["make:body"] < places("Hare, crouched")["make:head"]
    head = places("Hare, crouched", {"build": "head"})
    assert head["make:head"] < head["make:body"]
    small = places("Hare, crouched", {"build": "small"})
    assert small["make:tail"] < small["make:body"]


def test_a_bundle_ends_with_one_needle_and_never_touches_a_face():
    # higher gauges are finer: 36 and 38 for bulk, 40 and 42 for detail  # common practice
    bulk = [replace(part, wools=tuple(replace(w, grams=9.0) for w in part.wools)) for part in BY_NAME["Otter, upright"]]
    found = {step.id: step for step in steps(bulk, {"needles": "bundle"})}
    assert "two or three 36" in found["make:body"].needles
    assert ("firm:body" in found) and "two or three" not in found["firm:body"].needles
    assert ("firm:body", "host") in found["join:head"].after
    assert "never a bundle" in found["make:muzzle"].needles
    assert "42" in found["detail:muzzle"].needles


def test_a_question_is_asked_only_where_it_is_needed_and_once():
    needs = needs_of(BY_NAME["Lighthouse"])
    assert "eyes" not in asked(needs, {})
    assert "trim" not in asked(needs, {})
    assert "attach" in asked(needs, {})
    assert "edges" in asked(needs, {}), "its door is flat"
    assert "trim" in asked(needs_of(BY_NAME["Hedgehog"]), {})
    assert "attach" not in asked(needs, {"attach": "glue"})
    assert way({"attach": "nonsense"}, "attach") == "loose end"


# a simple figure half an hour to an hour, a detailed one ten times that  # common practice
@pytest.mark.parametrize("name", sorted(BY_NAME))
def test_times_are_those_of_the_bench(name):
    assert 30 < sum(step.minutes for step in steps(BY_NAME[name], {})) < 600


BALL = Worked("ball", "ball", "ball", 1, None, "medium", ())
BATT = Wool("core", "sand", "core", 1.0, form="batt")


@pytest.mark.parametrize(
    ("part", "needs"),
    [
        (BALL, set()),
        (replace(BALL, wools=(BATT,)), {"bulk"}),
        (replace(BALL, wools=(replace(BATT, form="tops"),)), {"bulk", "tops"}),
        (replace(BALL, wools=(replace(BATT, role="cover", form="tops"),)), {"cover"}),
        (replace(BALL, wools=(Wool("coat", "sand", "main", 1.0, form="locks"),)), {"coat"}),
        (replace(BALL, wools=(Wool("detail", "sand", "main", 1.0, form="tops"),)), set()),
        (replace(BALL, wools=(Wool("detail", "sand", "main", 1.0, how="line"),)), {"lines"}),
        (replace(BALL, count=2), set()),
        (replace(BALL, count=2, wools=(BATT,)), {"bulk", "pairs"}),
        (replace(BALL, count=2, wools=(replace(BATT, role="cover"),)), {"cover"}),
        (replace(BALL, on="body"), set()),
        (replace(BALL, on="body", wools=(Wool("detail", "sand", "main", 1.0, form="tops"),)), {"joins"}),
        (replace(BALL, kind="eye", bead_mm=4), {"eyes"}),
        (replace(BALL, kind="eye", wools=(BATT,)), {"bulk", "head"}),
        (replace(BALL, kind="head"), {"head"}),
        (replace(BALL, shape="slab", thick_mm=3, wools=(BATT,)), {"bulk", "flat"}),
        (replace(BALL, shape="slab", thick_mm=9, wools=(BATT,)), {"bulk"}),
    ],
)
def test_what_a_part_brings_makes_the_questions_arise(part, needs):
    assert needs_of([part]) == needs


def test_the_questions_of_a_figure_are_those_of_its_parts_together():
    head = replace(BALL, kind="head", on="ball", wools=(replace(BATT, form="tops"),))
    assert needs_of([BALL, head]) == {"bulk", "tops", "joins", "head"}


def test_parts_that_differ_in_anything_but_their_place_are_worked_by_themselves():
    arm = replace(BALL, key="arm 1", name="arm 1", kind="arm", count=2, on="ball", wools=(BATT,), size="5 × 40 mm")
    other = replace(arm, key="arm 2", name="arm 2")
    root = replace(BALL, wools=(BATT,))
    one = families([root, arm, other])
    assert [(part.key, part.name, part.count, part.keys) for part in one] == [
        ("ball", "ball", 1, ("ball",)), ("arm 1", "arm", 4, ("arm 1", "arm 2")),
    ]  # fmt: skip
    assert one[1].wools[0].grams == 2
    for told in (
        {"size": "6 × 40 mm"},
        {"outline": "another"},
        {"firmness": "firm"},
        {"wire": "1 mm wire"},
        {"wools": (replace(BATT, fibre="oat"),)},
    ):
        assert len(families([root, arm, replace(other, **told)])) == 3
    hand = replace(BALL, key="hand", name="hand", on="arm 2", wools=(BATT,))
    assert families([root, arm, other, hand])[-1].on == "arm 1", "what sits on one of them sits on them"


def test_lengths_and_weights_in_words_are_said_as_the_house_says_them():
    inches = spoken("Cut {mm:25.4} of it, {g:28.35}.", lambda mm: f"{mm / 25.4:g} in", lambda g: f"{g / 28.35:g} oz")
    assert inches == "Cut 1 in of it, 1 oz."
    assert plainly("{mm:13} bare; {nothing:4}") == "13 mm bare; {nothing:4}"


def test_a_mouth_is_drawn_under_a_nose_that_is_there():
    sewn_on = places("Hedgehog")
    assert sewn_on["join:nose"] < sewn_on["mouth:face"]
    painted = by_id("Hare, crouched")["mouth:head"]
    assert "detail:head" in painted.waits_for
    assert "under the nose" in painted.words
    assert "low on the face" in by_id("newt")["mouth:head"].words


def test_felted_eyes_get_a_dent_wherever_they_sit():
    found = places("Octopus")
    assert found["make:mantle"] < found["sockets:mantle"] < found["join:eyeball"]
    assert "eyeball" in by_id("Octopus")["sockets:mantle"].words
    assert not any(step.startswith("mouth:") for step in found)


def test_where_nothing_is_weighed_no_step_asks_for_the_scale():
    for name in sorted(EVERY):
        for step in steps(EVERY[name], {"weigh": "nothing"}):
            assert "{g:" not in step.words, (name, step.id)
            assert "scale" not in step.words, (name, step.id)
    large, small = (by_id("Otter, upright", {"weigh": "bodies"})[key].words for key in ("make:body", "make:muzzle"))
    assert "{g:" in large
    assert "{g:" not in small


def test_what_is_joined_soft_is_felted_through_where_it_sits():
    quick, steady = by_id("Otter, upright", {"pace": "quick"}), by_id("Otter, upright")
    assert "holds its shape" in quick["make:head"].words
    assert "until it is firm" in quick["join:head"].words
    assert quick["join:head"].minutes > steady["join:head"].minutes
    assert "felt it through" not in steady["join:head"].words
    assert "felt it through" not in quick["join:ear"].words  # too thin to be stabbed deep on the figure
    heavy = replace(EVERY["Otter, upright"][1], wools=(Wool("core", "core", "core", 9.0, form="batt"),))
    figure = [EVERY["Otter, upright"][0], heavy]
    assert "firm:head" in {step.id for step in steps(figure, {"needles": "bundle"})}
    assert "firm:head" not in {step.id for step in steps(figure, {"needles": "bundle", "pace": "quick"})}


def test_pins_try_several_at_once_and_one_as_it_is_joined():
    pinned = by_id("Snail", {"attach": "pinned"})
    assert pinned["try:foot"].title == "Pin to foot: shell coil, head and neck"
    alone = by_id("Hedgehog", {"attach": "pinned"})
    assert not any(step.startswith("try:") for step in alone)
    assert alone["join:face"].words.startswith("Try it with a pin first.")


def test_what_is_filled_is_filled_whole():
    crab = by_id("Hermit crab")["make:shell whorl 1"]
    assert (crab.first_of("filling"), crab.first_of("core")) == (1.0, 0.75)
    assert "All the filling; of the wool {g:3} first" in crab.words  # three quarters of its four grams
    assert (
        "All the filling and three quarters of the wool first"
        in by_id("Hermit crab", {"weigh": "nothing"})[crab.id].words
    )


def test_a_cutter_is_filled_twice_as_deep_as_the_piece():
    step = by_id("Heron", {"edges": "cutter"})["make:wing"]
    wing = next(part for part in EVERY["Heron"] if part.key == "wing")
    assert f"Fill the cutter {{mm:{2 * wing.thick_mm:g}}} deep" in step.words
    assert step.title == "Felt 2 × wing in a cutter"


def test_what_is_glued_in_a_row_dries_together():
    found = steps(EVERY["spider"], {})
    glued = [step for step in dried_together(found) if step.id.startswith("eyes:")]
    assert [step.wait_hours for step in glued] == [0.0, 12.0]
    apart = [*(step for step in found if step.id != glued[1].id), found[[step.id for step in found].index(glued[1].id)]]
    assert sum(step.wait_hours for step in dried_together(apart)) == 24, "another step between them"


def test_locks_are_not_smoothed():
    assert "not where locks stand" in by_id("Hedgehog")["smooth"].words
    assert "not where locks stand" in by_id("Heron")["smooth"].words, "plumes are locks"
    assert "locks" not in by_id("Otter, upright")["smooth"].words


def marked(*marks: Wool) -> dict:
    part = Worked("p", "lantern", "body", 1, None, "firm", (Wool("core", "core", "core", 4.0), *marks))
    return {step.id: step for step in steps([part], {})}


def test_long_patches_are_stripes_and_what_is_reckoned_is_said_roughly():
    stripes = marked(Wool("detail", "soot", "dark", 0.1, how="patch", pieces=8, long_mm=11.3, wide_mm=2.3))["detail:p"]
    assert stripes.title == "Stripes on lantern"
    assert "each about {mm:11} × {mm:2.5}." in stripes.words
    assert stripes.compare.startswith("Spaced evenly?")
    patch = marked(Wool("detail", "soot", "dark", 0.1, how="patch", long_mm=0.1, wide_mm=0.1))["detail:p"]
    assert patch.title == "A patch on lantern"
    assert "{mm:0.5} across" in patch.words
    told = marked(Wool("detail", "soot", "dark", 0.1, how="spots", pieces=2, long_mm=4.2, wide_mm=4.2))["detail:p"]
    assert "{mm:4.2} across" in told.words
    assert "Spaced evenly?" not in told.compare


@pytest.mark.parametrize("question", list(QUESTIONS))
def test_a_question_arises_at_a_step_that_its_answer_changes(question):
    raised = 0
    tops = replace(EVERY["ball"][0], wools=(Wool("core", "chalk", "body", 4.0, form="tops"),))
    for name, parts in {**EVERY, "tops": [tops]}.items():
        if question not in asked(needs_of(parts), {}):
            continue
        found = steps(parts, {})
        at = fork_at(question, found)
        assert at, name
        spots = {answer: [step.id for step in steps(parts, {question: answer})] for answer in QUESTIONS[question].ways}
        said = {
            answer: {s.id: s for s in steps(parts, {question: answer})}.get(at) for answer in QUESTIONS[question].ways
        }
        place = spots[next(iter(spots))].index(at)
        moved = len({tuple(ids[: place + 1]) for ids in spots.values()}) > 1
        raised += moved or len({str(step) for step in said.values()}) > 1
        if raised == ENOUGH:
            break
    assert raised


def test_every_question_has_its_place():
    assert set(AT) == set(QUESTIONS)
    assert fork_at("trim", steps(EVERY["Otter, upright"], {})) == ""
    assert "eyes" not in needs_of(EVERY["Octopus"])  # its eyes are felted and joined like any part


def test_a_wool_that_felts_slowly_takes_longer_and_may_stay_soft():
    def ball(felting: str) -> dict:
        wool = Wool("core", "cria", "core", 4.0, form="tops", felting=felting)
        return {s.id: s for s in steps([Worked("b", "ball", "body", 1, None, "firm", (wool,))], {})}

    slow, steady, quick = (ball(felting)["make:b"] for felting in ("slowly", "steadily", "quickly"))
    assert slow.minutes == pytest.approx(1.25 * steady.minutes)
    assert quick.minutes == pytest.approx(0.85 * steady.minutes)
    assert "felts slowly" in slow.words
    assert "slowly" not in steady.words + quick.words


def test_pre_felt_is_cut_and_not_laid_out():
    body, wing = EVERY["Heron"][0], next(part for part in EVERY["Heron"] if part.name == "wing")
    made = {}
    for form in ("prefelt", "batt"):
        part = replace(wing, wools=(Wool("core", "grey", "back", 9.0, form=form),))
        made[form] = {step.id: step for step in steps([body, part], {})}["make:wing"]
        assert ("flat" in needs_of([part])) == (form == "batt"), "its edge is cut, nobody is asked"
    assert made["prefelt"].title == "Cut 2 × wing from pre-felt"
    paces = METHODS["sheet"].pace / METHODS["flat"].pace
    assert made["prefelt"].minutes == pytest.approx(paces * made["batt"].minutes)
