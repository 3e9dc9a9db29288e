"""Plates and the garage in a real browser: labels, sources, tires, units, readiness, coupling
another rig.
"""

import re

from playwright.sync_api import expect

from tests.browser.stage import PHONE, OnStage, at, unfolded
from tests.truth import rig_of


class Labels(OnStage):
    def setUp(self) -> None:
        super().setUp()
        # GVWR 7,000, payload 1,658, curb 4,657 lb
        self.rig = self.rigs.add(rig_of("check--three-passes"))

    def test_a_label_with_its_picture_source_and_meaning(self) -> None:
        page = self.page(f"/rigs/{self.rig}/plates")
        plate = page.get_by_role("region", name="Certification label")
        plate.get_by_role("button", name="where is it?").click()
        expect(plate.get_by_role("img", name=re.compile("GVWR"))).to_be_visible()
        plate.get_by_role("button", name="Where GVWR came from").click()
        page.get_by_role("radio", name="plate", exact=True).click()
        page.get_by_label("Read on").fill("2026-13-45")
        page.get_by_role("button", name="Save", exact=True).click()
        expect(page.get_by_text("is not a date")).to_be_visible()
        page.get_by_label("Read on").fill("2026-10-02")
        page.get_by_label("Note", exact=True).fill("driver's door")
        page.get_by_role("button", name="Save", exact=True).click()
        expect(plate.get_by_text("driver's door", exact=True)).to_be_visible()
        # 7,000 − 1,658 − 4,657
        expect(page.locator('[data-beside="vehicle.curb_weight"]')).to_contain_text("685 lb more")
        page.get_by_role("button", name="What GVWR means").first.click()
        expect(page.get_by_role("dialog").locator("[data-meaning=gvwr]")).to_contain_text(
            "loaded vehicle"
        )
        page.get_by_role("button", name="GCWR", exact=True).click()
        expect(page.locator("[data-meaning=gcwr]")).to_contain_text("counts once")

    def test_tires_table_hitch_fit_and_own_cushions(self) -> None:
        page = self.page(f"/rigs/{self.rig}/plates")
        rear = page.get_by_role("region", name="Rear tires")
        at(page, "vehicle.tires.rear.load_index").fill("12x")
        expect(rear.get_by_text("is not a load index")).to_be_visible()
        at(page, "vehicle.tires.rear.load_index").fill("114")
        rear.get_by_text("Size, range, wheels, axle").click()
        at(page, "vehicle.tires.rear.wheel").fill("1500")
        expect(rear.locator("[data-tires]")).to_contain_text("3,000 lb")  # two wheels of 1,500
        expect(rear.locator("[data-tires]")).to_contain_text(
            "The wheels carry less than the axle rating"
        )
        rear.get_by_text("Pressures, cold").click()
        rear.get_by_role("button", name="type or paste the tire maker's own table").click()
        box = rear.get_by_role("textbox", name=re.compile("^A pressure and the load"))
        box.fill("35 1700\nforty 1800")
        rear.get_by_role("button", name="Keep the table").click()
        expect(rear.get_by_text("line 2")).to_be_visible()
        expect(box).to_have_value("35 1700\nforty 1800")
        box.fill("35 1700\n40 1850\n45 1990")
        rear.get_by_role("button", name="Keep the table").click()
        # the rear axle was weighed at 3,680 lb: 1,840 a tire
        expect(rear.locator("[data-tires]")).to_contain_text("At least 40 psi, cold")
        page.get_by_text("Your own figure for each limit").click()
        at(page, "policy.cushions.vehicle.front_axle").fill("90 %")
        page.get_by_role("link", name="Margins").click()
        page.locator('tr[data-check="vehicle.front_axle"]').click()
        expect(page.locator("aside [data-part=working]")).to_contain_text("cushion of 90 %")

    def test_units_terms_and_readiness(self) -> None:
        page = self.page(f"/rigs/{self.rig}/plates")
        page.get_by_role("radio", name="Europe, UK").click()
        page.get_by_role("button", name="figures in kg").click()
        expect(page.locator('[data-brace="vehicle.gross"]')).to_contain_text("3,175")  # 7,000 lb
        expect(at(page, "vehicle.ratings.gvwr")).to_have_value("7000 lb")
        expect(page.get_by_label("MAM", exact=True).first).to_be_visible()
        page.get_by_role("button", name="a noseweight of 5–7 %").click()
        expect(page.get_by_role("radio", name=re.compile("5–7 %"))).to_be_checked()
        line = page.get_by_role("checkbox", name=re.compile("Jockey wheel and corner steadies up"))
        line.click()
        expect(line).to_be_checked()
        page.reload()
        expect(line).to_be_checked()
        expect(page.locator("[data-part=ready]")).to_contain_text("done")

    def test_a_field_is_found_by_its_name_also_where_it_is_folded(self) -> None:
        page = self.page(f"/rigs/{self.rig}/plates", PHONE)
        find = page.get_by_label("Find a field")
        find.fill("gawr rear")
        find.press("Enter")
        expect(at(page, "vehicle.ratings.gawr_rear")).to_be_focused()
        find.fill("placard asks tires")
        page.locator("li button", has_text="Placard asks for").first.click()
        expect(page.locator('input[data-path$="placard_pressure"]:focus')).to_be_visible()
        find.fill("flux")
        expect(page.get_by_text("No field is called that.")).to_be_visible()

    def test_a_towing_guide_is_pasted_once_and_the_right_row_is_taken(self) -> None:
        page = self.page(f"/rigs/{self.rig}/plates")
        guide = page.get_by_role("region", name="Towing guide")
        guide.get_by_text("Which row was read").click()
        guide.get_by_text("paste a guide's table").click()
        guide.get_by_label("The guide's table").fill("Engine;Axle ratio;GCWR\nV8;3.31;heavy\n")
        guide.get_by_role("button", name="Keep it in the garage").click()
        expect(guide.get_by_role("alert")).to_contain_text("Line 2, GCWR: “heavy”")
        guide.get_by_label("The guide's table").fill(
            "Engine;Axle ratio;GCWR\nV8;3.31;13,300\nV8;3.55;15,900\n"
        )
        guide.get_by_role("button", name="Keep it in the garage").click()
        expect(guide.locator("[data-part=guide]")).to_contain_text("Enter above: axle ratio")
        at(page, "vehicle.guide.axle_ratio").fill("3.55")
        expect(guide.get_by_text("Not yours, but easily read instead")).to_be_visible()
        guide.get_by_role("button", name="Take this row").click()
        expect(at(page, "vehicle.ratings.gcwr")).to_have_value(re.compile("15,?900"))
        expect(guide.get_by_role("button", name="Where GCWR came from")).to_contain_text("manual")

    def test_on_a_phone_a_label_is_one_line_unless_the_answer_needs_it(self) -> None:
        document = rig_of("check--three-passes")
        del document["vehicle"]["ratings"]["gawr_front"]
        rig = self.rigs.add(document)
        page = self.page(f"/rigs/{rig}/plates", PHONE)
        label = page.get_by_role("region", name="Certification label")
        expect(label.locator("summary").first).to_contain_text("2 of 3 filled")
        at(page, "vehicle.ratings.gawr_front").fill("2600")
        expect(label.locator("summary").first).to_contain_text("3 of 3 filled")
        payload = at(page, "vehicle.ratings.payload")
        expect(payload).to_be_hidden()
        unfolded(page, "vehicle.ratings.payload")
        expect(payload).to_have_value("1,658")
        page.goto(f"{self.address}/rigs/{rig}/plates#vehicle.curb_weight")
        expect(at(page, "vehicle.curb_weight")).to_be_focused()

    def test_the_first_axle_typed_alone_is_asked_about_and_doubled_in_one_tap(self) -> None:
        """8,700 lb on one axle of 4,300: the folded label says so, and that two are meant."""
        document = rig_of("check--three-passes")
        document["trailer"]["ratings"]["gawr"] = [4300]
        rig = self.rigs.add(document)
        page = self.page(f"/rigs/{rig}/plates", PHONE, touch=True)
        label = page.get_by_role("region", name="Trailer label")
        expect(label.locator("summary").first).to_contain_text("read again")
        label.locator("summary").first.click()
        label.get_by_role("button", name="2 axles of 4,300 lb each").click()
        expect(at(page, "trailer.ratings.gawr[1]")).to_have_value("4,300")
        expect(label.locator("summary").first).not_to_contain_text("read again")

    def test_by_thumb(self) -> None:
        page = self.page(f"/rigs/{self.rig}/plates", PHONE)
        self.fits(page)
        page.get_by_role("button", name="how the ratings fit together").click()
        expect(page.get_by_role("dialog")).to_be_visible()
        self.fits(page)


class InTheGarage(OnStage):
    def test_another_trim_and_another_trailer(self) -> None:
        self.rigs.add(rig_of("check--kilograms"))
        rig = self.rigs.add(rig_of("check--three-passes"))
        page = self.page(f"/rigs/{rig}/plates")
        page.locator("#part-vehicle").get_by_role("button", name="try a copy of it").click()
        expect(page.locator("[data-menu=rig]")).to_contain_text("another vehicle")
        at(page, "vehicle.ratings.gvwr").fill("7,300")
        expect(page.locator("#part-trailer")).to_contain_text("also in")
        page.get_by_role("link", name="the garage").click()
        vehicles = page.get_by_role("region", name="Vehicles")
        expect(vehicles.locator("article")).to_have_count(3)
        vehicles.locator("article").filter(has_text="7,300 lb").get_by_role(
            "button", name=re.compile("^Choose")
        ).click()
        trailers = page.get_by_role("region", name="Trailers")
        trailers.get_by_role("button", name="Choose The Lantern").click()
        page.get_by_label("Its name").fill("Both")
        page.get_by_role("button", name="Couple them").click()
        expect(page.locator("[data-menu=rig]")).to_contain_text("Both")
        expect(at(page, "trailer.ratings.gvwr")).to_have_value("4025 kg")
        page.get_by_role("link", name="the garage").click()
        page.get_by_role("button", name="Retire The Lantern").click()
        expect(page.get_by_role("button", name="Offer The Lantern again")).to_be_visible()
        expect(page.get_by_role("button", name="Choose The Lantern")).to_have_count(0)
