package org.zephyrmist.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.assertions.LocatorAssertions;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.SelectOption;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.regex.Pattern;
import java.util.stream.IntStream;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.MethodOrderer.OrderAnnotation;
import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestMethodOrder;
import org.junit.jupiter.api.io.TempDir;
import org.zephyrmist.stage.Practice;
import org.zephyrmist.stage.PracticeTools;
import org.zephyrmist.stage.Samples;
import org.zephyrmist.stage.Stage;

/** A new term: from tool links that are dead in all sections to links that work in all. */
@TestMethodOrder(OrderAnnotation.class)
class ToolsTest {
  @TempDir static Path folder;
  private static final String ROPEWALK = "ropewalk.example";
  private static final String CUEBENCH = "cuebench.example";
  private static final String TAGOUT = "tagout.example";
  private static final String FLYFLOOR = "flyfloor.example";
  private static final String PATTERNROOM = "patternroom.example";
  private static final List<String> SHELLS =
      IntStream.rangeClosed(1, 48).mapToObj(i -> "lgt-%02d".formatted(i)).toList();
  private static final Practice PRACTICE = new Practice();
  private static final PracticeTools TOOLS = new PracticeTools();
  private static Walk walk;
  private static Page page;

  @BeforeAll
  static void open() throws Exception {
    walk = Walk.begin(folder, SHELLS);
    page = walk.page;
    walk.platform(SHELLS);
    walk.takeIn(Samples.tools(folder, List.of(ROPEWALK, CUEBENCH, TAGOUT, PATTERNROOM)));
    walk.master();
    TOOLS.key(ROPEWALK, "larkmoor", "practice");
    TOOLS.key(CUEBENCH, "larkmoor", "practice");
    walk.inHand(String.join(" ", SHELLS).replace("lgt-", "110-"));
    walk.button("Bring v1 to 48 sections …").click();
    walk.button("See the plan").click();
    page.getByRole(
            AriaRole.BUTTON,
            new Page.GetByRoleOptions().setName(Pattern.compile("Deliver .*to 48 sections")))
        .click();
    assertThat(walk.heading("Delivered: LGT 110, version 1, to 48 sections"))
        .isVisible(new LocatorAssertions.IsVisibleOptions().setTimeout(180_000));
  }

  @AfterAll
  static void close() {
    walk.close();
  }

  private static Locator take(String tool, String stage, int sections) {
    return walk.button("Take in hand: %s, %s, %d sections".formatted(tool, stage, sections));
  }

  /** Takes these in hand, whatever was there before. */
  private static void inHand(Locator sections) {
    sections.waitFor();
    if (walk.button("Put all back").isVisible()) {
      walk.button("Put all back").click();
    }
    sections.click();
  }

  /** The form of a new connection of a host. */
  private static void enter(String host, String name) {
    page.navigate(Walk.ADDRESS + "/tools?host=" + host);
    walk.button("Enter its connection").click();
    page.getByLabel("Name", exactly()).fill(name);
  }

  private static Page.GetByLabelOptions exactly() {
    return new Page.GetByLabelOptions().setExact(true);
  }

  private static void keys(String secret) {
    page.getByLabel("Consumer key").fill("larkmoor");
    page.getByLabel(Pattern.compile("Shared secret")).fill(secret);
  }

  private static void stage(String words) {
    page.getByLabel("Add a stage").selectOption(new SelectOption().setLabel(words));
  }

  private interface Change {
    void make() throws Exception;
  }

  /**
   * Has the platform asked again after something changed in sections that wait for something. They
   * are in hand before: the server looks by itself too, and may be the first to see it.
   */
  private static void lookAgain(String tool, String stage, int sections, Change change)
      throws Exception {
    inHand(take(tool, stage, sections));
    change.make();
    walk.button("Look again").click();
  }

  @Test
  @Order(1)
  void atFirstNothingWorks() {
    page.navigate(Walk.ADDRESS + "/tools");
    assertThat(walk.heading("Tool links work in 0 of 48 sections")).isVisible();
    assertThat(take(ROPEWALK, "not connected", 48)).isVisible();
    WholePathTest.accessible(page, "hosts");
  }

  @Test
  @Order(2)
  void oneKeyIsTriedKeptAndBroughtIntoAllShells() {
    enter(ROPEWALK, "Ropewalk Loads");
    keys("not this one");
    walk.button("Try one launch").click();
    assertThat(page.getByText("the secret of larkmoor is another one")).isVisible();
    keys("practice");
    walk.button("Try one launch").click();
    assertThat(page.getByText(Pattern.compile("opened in \\d+ ms"))).isVisible();
    WholePathTest.accessible(page, "connect");
    walk.button("Keep this connection").click();
    inHand(take("Ropewalk Loads", "not connected", 48));
    assertThat(page.getByText("its credentials are not in the shell yet").first()).isVisible();
    walk.button("Connect 48 links in 48 sections").click();
    assertThat(take("Ropewalk Loads", "works", 48)).isVisible();
    assertThat(walk.heading("Tool links work in 0 of 48 sections")).isVisible();
  }

  @Test
  @Order(3)
  void anInstructorAnswersOnceAndWhatWasAnsweredIsSeen() throws Exception {
    enter(CUEBENCH, "CueBench");
    keys("practice");
    stage("a course on the tool’s side");
    stage("first opening");
    page.getByLabel("A section comes to its course")
        .selectOption(new SelectOption().setLabel("by the instructor’s answer in the tool"));
    page.getByLabel(Pattern.compile("What the tool says then")).fill("Tied to course {course}");
    walk.button("Keep this connection").click();
    inHand(take("CueBench", "not connected", 48));
    walk.button("Connect 48 links in 48 sections").click();
    assertThat(take("CueBench", "not opened yet", 48)).isVisible();
    handedOver();
    page.navigate(Walk.ADDRESS + "/tools?host=" + CUEBENCH);
    Page instructor = page.context().newPage();
    instructor.navigate(Stage.practiceAddress() + "/shells/lgt-01?work=true");
    instructor.getByText("Open " + CUEBENCH).click();
    instructor.getByText("Open the tool").click();
    instructor.getByText("A new copy of the master course").click();
    assertThat(instructor.getByText(Pattern.compile("Tied to course cu-"))).isVisible();
    instructor.close();
    Map<String, String> courses = new TreeMap<>();
    Map<String, String> said = new TreeMap<>();
    for (String s : SHELLS.subList(1, 48)) {
      String course = s.equals("lgt-03") ? "cu-lgt-02" : "cu-" + s; // one answers wrongly
      courses.put(s, course);
      said.put(s, "Tied to course " + course);
    }
    lookAgain(
        "CueBench",
        "not opened yet",
        48,
        () -> {
          TOOLS.courses(CUEBENCH, courses);
          PRACTICE.opened(CUEBENCH, said);
        });
    assertThat(take("CueBench", "works", 46)).isVisible();
    assertThat(take("CueBench", "wrongly tied", 2)).isVisible();
  }

  /** What waits for instructors is one line, with the steps of the college. */
  private static void handedOver() {
    page.navigate(Walk.ADDRESS + "/hand-overs");
    assertThat(walk.heading("48 hand-overs wait")).isVisible();
    walk.button("Open CueBench once").click();
    walk.button("Write how it is done here").click();
    page.getByLabel("How it is done here").fill("Use the link in week 1.");
    page.getByLabel("Whom to ask").fill("the help desk");
    walk.button("Keep the steps").click();
    assertThat(page.getByText("Use the link in week 1.")).isVisible();
    walk.button("Put all back").click();
    page.getByLabel(Pattern.compile("^110-02")).check();
    page.getByLabel(Pattern.compile("^Due")).fill("2020-01-05");
    walk.button("Set them").click();
    assertThat(page.getByText("was due 5 Jan 2020")).isVisible();
    WholePathTest.accessible(page, "hand-overs");
    walk.button("Put all back").click();
  }

  /** Of two sections on one course one is given its own, which its instructor opens once. */
  @Test
  @Order(4)
  void aWrongTieIsMended() throws Exception {
    page.navigate(Walk.ADDRESS + "/tools?host=" + CUEBENCH);
    inHand(take("CueBench", "wrongly tied", 2));
    walk.button("Mend 2 ties").click();
    assertThat(walk.heading("Mend 2 ties of CueBench")).isVisible();
    WholePathTest.accessible(page, "ties");
    walk.button("Close").click();
    walk.button("Put all back").click();
    page.getByLabel("Find a section").fill("110-03");
    inHand(take("CueBench", "wrongly tied", 1));
    walk.button("Mend 1 tie").click();
    page.getByLabel(Pattern.compile("^Launches name the course")).check();
    page.getByLabel("Course of each section").fill("cu-lgt-02");
    walk.button("Name 1 course").click();
    assertThat(page.getByText("lgt-02 is tied to cu-lgt-02 already")).isVisible();
    page.getByLabel("Course of each section").fill("cu-{section}");
    walk.button("Name 1 course").click();
    assertThat(take("CueBench", "not opened yet", 1)).isVisible();
    lookAgain("CueBench", "not opened yet", 1, ToolsTest::theInstructorOpensIt);
    assertThat(take("CueBench", "works", 1)).isVisible();
    walk.button("Put all back").click();
    page.navigate(Walk.ADDRESS + "/tools?host=" + CUEBENCH);
    assertThat(take("CueBench", "works", 48)).isVisible();
  }

  private static void theInstructorOpensIt() {
    Page instructor = page.context().newPage();
    instructor.navigate(Stage.practiceAddress() + "/shells/lgt-03?work=true");
    instructor.getByText("Open " + CUEBENCH).click();
    instructor.getByText("Open the tool").click();
    assertThat(instructor.getByText("cu-lgt-03")).isVisible();
    instructor.close();
  }

  private static void answered(String course) throws Exception {
    TOOLS.courses(CUEBENCH, Map.of("lgt-04", course));
    PRACTICE.opened(CUEBENCH, Map.of("lgt-04", "Tied to course " + course));
  }

  /** One course of the term before is found behind a section of this one, and left to that. */
  @Test
  @Order(5)
  void aTieToAnotherTermIsFoundAndMended() throws Exception {
    walk.past(
        "insert into term (id, sourced_id, title, first_day, last_day) select gen_random_uuid(),"
            + " 'before', 'The term before', first_day - 200, first_day - 100 from term limit 1",
        "update section set term_id = (select id from term where sourced_id = 'before') where"
            + " sourced_id = 'lgt-48'");
    page.navigate(Walk.ADDRESS + "/tools?host=" + CUEBENCH + "&find=110-04");
    lookAgain("CueBench", "works", 1, () -> answered("cu-lgt-48"));
    inHand(take("CueBench", "wrongly tied", 1));
    assertThat(page.getByText("tied to another term’s course").first()).isVisible();
    walk.button("Mend 1 tie").click();
    walk.button("Ask anew for 1 course").click();
    assertThat(take("CueBench", "not opened yet", 1)).isVisible();
    lookAgain("CueBench", "not opened yet", 1, () -> answered("cu-lgt-04"));
    assertThat(take("CueBench", "works", 1)).isVisible();
    walk.past(
        "update section set term_id = (select id from term where sourced_id <> 'before' limit 1)",
        "delete from term where sourced_id = 'before'");
    walk.button("Put all back").click();
    page.navigate(Walk.ADDRESS + "/tools?host=" + CUEBENCH);
    assertThat(take("CueBench", "works", 48)).isVisible();
  }

  @Test
  @Order(6)
  void anAgreementIsAcceptedInEachSection() throws Exception {
    enter(TAGOUT, "TagOut");
    page.getByLabel(Pattern.compile("^Way")).selectOption("OPEN");
    stage("agreement at the first opening");
    page.getByLabel(Pattern.compile("What the tool says then")).fill("Agreement accepted");
    walk.button("Keep this connection").click();
    assertThat(take("TagOut", "not opened yet", 48)).isVisible();
    Map<String, String> said = new TreeMap<>();
    SHELLS.forEach(s -> said.put(s, "Agreement accepted"));
    lookAgain(
        "TagOut",
        "not opened yet",
        48,
        () -> {
          TOOLS.agreed(TAGOUT, SHELLS);
          PRACTICE.opened(TAGOUT, said);
        });
    assertThat(take("TagOut", "works", 48)).isVisible();
  }

  @Test
  @Order(7)
  void launchesAreTestedAsInstructorAndAsStudent() {
    page.navigate(Walk.ADDRESS + "/tools?host=" + ROPEWALK);
    inHand(take("Ropewalk Loads", "works", 48));
    walk.button("Test 48 sections").click();
    assertThat(page.getByText("Testing 48 sections as instructor and as student …")).isVisible();
    TOOLS.key(ROPEWALK, "larkmoor", "rolled over at the tool");
    walk.button("Test 48 sections").click();
    assertThat(take("Ropewalk Loads", "not connected", 48)).isVisible();
    assertThat(page.getByText("the tool refuses its credentials").first()).isVisible();
    walk.button("Change it").click();
    keys("rolled over at the tool");
    walk.button("Keep the changes").click();
    assertThat(take("Ropewalk Loads", "works", 48)).isVisible();
    page.navigate(Walk.ADDRESS + "/tools?host=" + ROPEWALK + "&find=110-07");
    inHand(take("Ropewalk Loads", "works", 1));
    walk.button("110-07").click();
    walk.button("Test Open " + ROPEWALK).click();
    assertThat(page.getByText("instructor: opened; student: opened")).isVisible();
    WholePathTest.accessible(page, "one section of a host");
  }

  @Test
  @Order(8)
  void aSecondPersonDecidesWhatSomebodyAskedFor() {
    Page ines = coordinator();
    ines.navigate(Walk.ADDRESS + "/tools?host=" + PATTERNROOM);
    assertThat(Walk.button(ines, "Enter its connection")).hasCount(0);
    ines.getByLabel("Why 48 sections need it").fill("Week 1 cuts a sleeve in it.");
    Walk.button(ines, "Ask for approval").click();
    assertThat(ines.getByText("an administrator decides")).isVisible();
    page.navigate(Walk.ADDRESS + "/tools/requests");
    assertThat(page.getByText("Week 1 cuts a sleeve in it.")).isVisible();
    WholePathTest.accessible(page, "requests");
    page.getByLabel("Conditions for " + PATTERNROOM).fill("For this year.");
    walk.button("Approve " + PATTERNROOM).click();
    assertThat(walk.heading("No host waits for a decision")).isVisible();
    TOOLS.key(PATTERNROOM, "larkmoor", "practice");
    enter(PATTERNROOM, "PatternRoom");
    keys("practice");
    stage("approval");
    walk.button("Keep this connection").click();
    assertThat(page.getByText("need not be")).hasCount(0);
    ines.navigate(Walk.ADDRESS + "/tools?host=" + PATTERNROOM);
    Walk.button(ines, "Take in hand: PatternRoom, not connected, 48 sections").click();
    Walk.button(ines, "Connect 48 links in 48 sections").click();
    assertThat(Walk.button(ines, "Take in hand: PatternRoom, works, 48 sections")).isVisible();
    assertThat(
            ines.getByRole(
                AriaRole.HEADING,
                new Page.GetByRoleOptions().setName("Tool links work in 48 of 48 sections")))
        .isVisible();
    ines.close();
  }

  @Test
  @Order(9)
  void aToolThatMovedIsFollowedByARuleAPlanADeliveryAndATest() {
    String moved = "new.ropewalk.example";
    TOOLS.moved(ROPEWALK, moved);
    page.navigate(Walk.ADDRESS + "/tools/rules");
    page.getByLabel("Addresses like").fill("//" + ROPEWALK + "{*rest}");
    page.getByLabel(Pattern.compile("^become")).fill("https://" + moved + "{*rest}");
    walk.button("Try it on all links").click();
    assertThat(walk.heading("48 of 192 links would change, in 48 sections")).isVisible();
    WholePathTest.accessible(page, "rules of links");
    walk.button("Keep this rule").click();
    assertThat(walk.heading("Links are rewritten by 1 rule")).isVisible();
    walk.inHand(String.join(" ", SHELLS).replace("lgt-", "110-"));
    walk.button("Bring v1 to 48 sections …").click();
    walk.button("See the plan").click();
    assertThat(page.getByLabel("Tools on arrival")).containsText("48 not connected");
    page.getByRole(
            AriaRole.BUTTON,
            new Page.GetByRoleOptions().setName(Pattern.compile("Deliver .*to 48 sections")))
        .click();
    assertThat(walk.heading("Delivered: LGT 110, version 1, to 48 sections"))
        .isVisible(new LocatorAssertions.IsVisibleOptions().setTimeout(180_000));
    page.navigate(Walk.ADDRESS + "/tools?host=" + moved);
    assertThat(take(moved, "not connected", 48)).isVisible();
    enter(moved, "Ropewalk Loads, moved");
    keys("rolled over at the tool");
    walk.button("Keep this connection").click();
    inHand(take("Ropewalk Loads, moved", "not connected", 48));
    walk.button("Connect 48 links in 48 sections").click();
    inHand(take("Ropewalk Loads, moved", "works", 48));
    walk.button("Test 48 sections").click();
    assertThat(page.getByText("Testing 48 sections as instructor and as student …")).isVisible();
    assertThat(take("Ropewalk Loads, moved", "works", 48)).isVisible();
  }

  /** The maker's own page is where a drill is picked; it comes back as a task of the draft. */
  @Test
  @Order(10)
  void aRegisteredToolIsEnteredAndItsResourceIsPickedIntoADraft() {
    TOOLS.platform(FLYFLOOR, "larkmoor", Walk.ADDRESS, Walk.ADDRESS + "/api/lti");
    page.navigate(Walk.ADDRESS + "/tools?host=new.ropewalk.example&enter=new");
    page.getByLabel("Name", exactly()).fill("FlyFloor");
    page.getByLabel("Hosts", exactly()).fill(FLYFLOOR);
    page.getByLabel(Pattern.compile("^Way")).selectOption("REGISTRATION");
    page.getByLabel("Client id").fill("larkmoor");
    page.getByLabel(Pattern.compile("^Deployment id")).fill("d1");
    page.getByLabel("Login begins at").fill("https://flyfloor.example/login");
    page.getByLabel(Pattern.compile("^Launches go to")).fill("https://flyfloor.example/launch");
    page.getByLabel("Its key set").fill("https://flyfloor.example/keys");
    page.getByText("What the tool has to know of us").click();
    WholePathTest.accessible(page, "registration");
    walk.button("Keep this connection").click();
    assertThat(page.getByText("What the tool has to know of us")).hasCount(0);
    page.navigate(Walk.ADDRESS + "/sources");
    page.getByText("LGT 110").first().click();
    walk.button("Add an item").first().click();
    walk.button("Pick in FlyFloor").click();
    page.getByLabel(Pattern.compile("Fly cue drill")).check();
    page.getByLabel(Pattern.compile("Chart of knots")).check();
    page.getByText("Take these").click();
    assertThat(walk.heading("FlyFloor sends 2 items")).isVisible();
    assertThat(page.getByText("a task done in the tool, 10 points")).isVisible();
    WholePathTest.accessible(page, "picked");
    walk.button("Add them to the draft").click();
    assertThat(page.getByText("Fly cue drill").first()).isVisible();
    assertThat(page.getByText("Chart of knots").first()).isVisible();
  }

  private static Page coordinator() {
    page.navigate(Walk.ADDRESS + "/college");
    walk.button("Let somebody in").click();
    page.getByLabel("Name").nth(1).fill("Ines Okafor-Lind");
    page.getByLabel("Mail address").fill("ines@larkmoor.example");
    page.getByLabel("First password").fill("a-long-password");
    walk.button("Let this person in").click();
    assertThat(page.getByText("Ines Okafor-Lind can sign in now.")).isVisible();
    walk.button("Change Ines Okafor-Lind").click();
    page.getByLabel("Lighting").check();
    walk.button("Save Ines Okafor-Lind").click();
    assertThat(walk.button("Save Ines Okafor-Lind")).hasCount(0);
    return walk.another("ines@larkmoor.example", "a-long-password");
  }
}
