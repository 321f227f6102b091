using System.Text;
using System.Text.Json;
using CsCheck;
using Halterion.Core.Checks;
using Halterion.Core.Planning;
using Halterion.Core.Plans;
using static Halterion.Core.Tests.Classes;

namespace Halterion.Core.Tests;

/// <summary>
/// Every rule that looks at a class alone: a class that trips it, one that only just does not, and its repairs. The limits are those
/// of the published sources named with each rule (from memory), or common practice and our own choice, as docs/checks.md says.
/// </summary>
public class RuleTests
{
    private const string Timed = """{"kind":"time","amount":30}""";

    /// <summary>A rule at work.</summary>
    /// <param name="Place">Where it must be found: ids are given by place.</param>
    /// <param name="Just">The class that only just does not trip it.</param>
    public sealed record Case(string Code, Severity Severity, string Place, string Trips, string Just, bool Mends = true)
    {
        public override string ToString() => $"{Code} {Severity} {Place} {Trips.GetHashCode(StringComparison.Ordinal):x}";
    }

    private static string S(string move, string dose = Timed, string more = "", string main = "", string options = "") =>
        $$"""{ {{(more.Length > 0 ? more + "," : "")}} "dose":[{{dose}}],"options":[{"tier":"main","move":"{{move}}"{{(main.Length > 0 ? "," + main : "")}}}{{(options.Length > 0 ? "," + options : "")}}]}""";

    private static string T(int seconds, string side = "both") => $$"""{"kind":"time","amount":{{seconds}},"side":"{{side}}"}""";

    private static string Reps(int amount, string more = "") =>
        $$"""{"kind":"reps","amount":{{amount}},"tempo":"2-0-1-0"{{(more.Length > 0 ? "," + more : "")}}}""";

    private static string B(string phase, string fields, params string[] stations) =>
        $$"""{"name":"{{phase}} block","phase":"{{phase}}"{{(fields.Length > 0 ? "," + fields : "")}},"stations":[{{string.Join(",", stations)}}]}""";

    private static string Class(string extra, params string[] blocks) => With(string.Join(",", blocks), extra);

    private static string Slot(int minutes, string text) =>
        text.Replace("\"slotMinutes\":60", $"\"slotMinutes\":{minutes}", StringComparison.Ordinal);

    private static string Swap(string text, string what, string by)
    {
        Assert.Contains(what, text, StringComparison.Ordinal);
        return text.Replace(what, by, StringComparison.Ordinal);
    }

    private static readonly string Warm = B("warmup", "\"leadInSeconds\":0", S("squat", T(300)));

    private static Case Of(string code, Severity severity, string place, string trips, string what, string by, bool mends = true) =>
        new(code, severity, place, trips, Swap(trips, what, by), mends);

    private static string Rotation(string fields, params string[] stations) =>
        B("main", $"\"format\":\"rotation\"{(fields.Length > 0 ? "," + fields : "")}", stations);

    public static TheoryData<Case> Cases =>
    [
        Of("time.over", Severity.Fix, "class", Slot(5, Class("", B("main", "\"leadInSeconds\":0", S("squat", T(301))))), ":301", ":300"),
        Of("time.under", Severity.Consider, "class", Slot(10, Class("", B("main", "\"leadInSeconds\":0", S("squat", T(539))))), ":539",
            ":540"),
        // 12 reps of 3 s take 36 s.
        Of("time.target", Severity.Fix, "b1s1", Class("", Rotation("\"windowSeconds\":35", S("squat", Reps(12)), S("glute-bridge", T(20)))),
            "\"windowSeconds\":35", "\"windowSeconds\":36"),
        Of("time.target", Severity.Fix, "b1s1", Class("", B("main", "\"startEverySeconds\":35", S("squat", Reps(12)))), "Seconds\":35",
            "Seconds\":36"),
        // Down to the floor takes 6 s.
        Of("time.change", Severity.Consider, "b1s2", Class("", B("main", "\"betweenStations\":5", S("squat"), S("glute-bridge"))),
            "Stations\":5", "Stations\":6"),
        Of("time.change", Severity.Consider, "b1s1",
            Class("", B("main", "\"rounds\":2,\"betweenStations\":20,\"betweenRounds\":5", S("squat"), S("glute-bridge"))), "Rounds\":5",
                "Rounds\":6"),
        Of("time.change", Severity.Consider, "b1s2", Class("", B("main", "\"startEverySeconds\":35", S("squat"), S("glute-bridge"))),
            "Seconds\":35", "Seconds\":36"),
        // Round the circle: walking takes 8 s, and 2 more for getting up.
        Of("time.change", Severity.Consider, "b1", Class("", Rotation("\"betweenStations\":9", S("squat"), S("glute-bridge"))),
            "Stations\":9", "Stations\":10"),
        // A station of 0 s in a round is passed over, and its change counts.
        Of(
            "time.change",
            Severity.Consider,
            "b1s3",
            Class("",
                B(
                    "main",
                    "\"betweenStations\":3,\"rounds\":2,\"betweenRounds\":20",
                    S("squat"),
                    S("squat", """{"kind":"time","amount":30,"rounds":[9]}"""),
                    S("glute-bridge", more: "\"changeSeconds\":2"))),
            "changeSeconds\":2",
            "changeSeconds\":3"),
        Of("time.switch", Severity.Note, "b1s1",
            Class("", B("main", "", S("single-leg-bridge", more: "\"sides\":\"each\",\"switchSeconds\":3"))), "Seconds\":3", "Seconds\":4"),
        Of("time.say", Severity.Note, "b1s2",
            Class("", B("main", "\"betweenStations\":10", S("squat"),
                S("hip-hinge", more: "\"say\":{\"text\":\"Long back\",\"seconds\":11}"))), "seconds\":11", "seconds\":10"),
        Of("time.say", Severity.Note, "b1",
            Class("",
                Rotation("\"say\":{\"text\":\"Round we go\",\"seconds\":11}", S("squat"), S("hip-hinge"))), "seconds\":11", "seconds\":10"),
        Of("time.goal", Severity.Consider, "b1",
            Class("", B("main", "\"order\":\"ownPace\",\"seconds\":179,\"rounds\":3", S("squat"), S("hip-hinge"))), ":179", ":180"),
        // 1201 s from the first work to the last.
        Of("time.drink", Severity.Consider, "class", Class("", B("main", "\"rounds\":2,\"betweenRounds\":1", S("squat", T(600)))),
            "betweenRounds\":1", "betweenRounds\":0"),
        Of("time.drink", Severity.Consider, "class",
            Class("", B("main", "\"rounds\":2,\"water\":true,\"betweenRounds\":29", S("squat", T(600)))), "betweenRounds\":29",
                "betweenRounds\":30"),
        // The lead-in of ten seconds counts.
        Of("time.warmUp", Severity.Fix, "class", Class("", B("warmup", "", S("squat", T(169))), B("main", "", S("squat"))), ":169", ":290"),
        Of("time.warmUp", Severity.Consider, "class", Class("", B("warmup", "", S("squat", T(289))), B("main", "", S("squat"))), ":289",
            ":290"),
        Of("time.warmUp", Severity.Note, "class", Slot(19, Class("", B("warmup", "", S("squat", T(49))), B("main", "", S("squat")))), ":49",
            ":50"),
        Of(
            "time.coolDown",
            Severity.Fix,
            "class",
            Class("", B("main", "", S("squat")), B("cooldown", "", S("childs-pose", T(109)))),
            ":109",
            ":230"),
        Of(
            "time.coolDown",
            Severity.Consider,
            "class",
            Class("", B("main", "", S("squat")), B("cooldown", "", S("childs-pose", T(229)))),
            ":229",
            ":230"),
        Of("time.talk", Severity.Consider, "class", Class("", B("main", "", S("squat", more: "\"demoSeconds\":19"), S("hip-hinge"))),
            "Seconds\":19", "Seconds\":20"),
        Of(
            "time.idle",
            Severity.Consider,
            "b1s1",
            Class("", Rotation("\"windowSeconds\":60", S("squat", T(29)), S("hip-hinge", T(60)))),
            ":29",
            ":30"),
        Of("time.idle", Severity.Consider, "b1s1", Class("", B("main", "\"startEverySeconds\":61", S("squat"))), "Seconds\":61",
            "Seconds\":60"),
        Of(
            "time.pace",
            Severity.Consider,
            "b1s1",
            Class("", B("main", "", S("squat", """{"kind":"reps","amount":10,"tempo":"0.5-0-0.3-0"}"""))),
            "0.5-0",
            "0.6-0"),
        Of(
            "time.pace",
            Severity.Consider,
            "b1s1",
            Class("", B("main", "", S("squat", """{"kind":"reps","amount":10,"tempo":"8-0-4.1-0"}"""))),
            "4.1",
            "4"),

        Of("effort.rest", Severity.Consider, "b1s1",
            Class("\"aim\":\"strength\",",
                B("main", "\"order\":\"sets\",\"rounds\":3,\"betweenSets\":[120,89]", S("goblet-squat"))), "89", "90"),
        Of("effort.rest", Severity.Consider, "b1",
            Class("\"aim\":\"strength\",",
                B("main", "\"rounds\":2,\"betweenStations\":10,\"betweenRounds\":29", S("goblet-squat"), S("hip-hinge"))), ":29", ":30"),
        Of("effort.density", Severity.Consider, "class",
            Class("\"aim\":\"strength\",",
                B("main", "\"leadInSeconds\":39", S("squat", T(61)))), "Seconds\":39", "Seconds\":41", mends: false),
        Of("effort.density", Severity.Consider, "class", Class("", B("main", "\"leadInSeconds\":66", S("squat", T(34)))), ":66", ":63",
            mends: false),
        Of("effort.reps", Severity.Note, "b1s1", Class("\"aim\":\"strength\",", B("main", "", S("goblet-squat", Reps(9)))), "amount\":9",
            "amount\":8", mends: false),
        Of(
            "effort.reps",
            Severity.Note,
            "b1s1",
            Class("\"aim\":\"endurance\",", B("main", "", S("goblet-squat", Reps(6) + """,{"kind":"rest","amount":31},""" + Reps(6)))),
            ":31",
            ":30",
            mends: false),

        Of("order.family", Severity.Consider, "b1s2",
            Class("", B("main", "\"betweenStations\":29", S("squat"), S("wide-squat"), S("hip-hinge"), S("glute-bridge"))), ":29", ":30"),
        // Round the circle the last comes before the first.
        Of("order.family", Severity.Consider, "b1s1",
            Class("", Rotation("\"betweenStations\":29", S("squat"), S("hip-hinge"), S("wide-squat"))), ":29", ":30", mends: false),
        // A part with a move of its own is the last before the gap.
        Of(
            "order.family",
            Severity.Consider,
            "b1s2",
            Class("",
                B(
                    "main",
                    "\"betweenStations\":20",
                    S("hip-hinge", T(20) + """,{"kind":"time","amount":20,"move":"squat"}"""),
                    S("wide-squat"),
                    S("glute-bridge"))),
            "\"move\":\"squat\"",
            "\"move\":\"hip-hinge\""),
        Of("order.jump", Severity.Fix, "b1s2", Class("", B("main", "", S("squat", T(61)), S("jump-squat", T(39)))), ":61", ":58"),
        Of("order.jump", Severity.Consider, "b1s1", Class("", Rotation("\"rounds\":2,\"windowSeconds\":30", S("jump-squat"), S("squat"))),
            "\"rounds\":2", "\"rounds\":1"),
        // A jump squat lands once a rep.
        Of(
            "order.contacts",
            Severity.Consider,
            "class",
            Class("", B("main", "\"rounds\":3", S("jump-squat", """{"kind":"reps","amount":27,"tempo":"1-0-1-0"}"""))),
            ":27",
            ":26"),
        Of(
            "order.contacts",
            Severity.Fix,
            "class",
            Class("", B("main", "\"rounds\":11", S("jump-squat", """{"kind":"reps","amount":11,"tempo":"1-0-1-0"}"""))),
            ":11,\"tempo",
            ":7,\"tempo"),
        // As written, also where the bell cuts it.
        Of(
            "order.contacts",
            Severity.Consider,
            "class",
            Class("",
                Rotation(
                    "\"windowSeconds\":10", S("jump-squat", """{"kind":"reps","amount":81,"tempo":"1-0-1-0"}"""), S("hip-hinge", T(10)))),
            ":81",
            ":80"),
        Of(
            "order.practise",
            Severity.Consider,
            "b1s1",
            Class("", B("main", "", S("squat", main: """ "load":{"implement":"kettlebell","kg":8}"""))),
            "\"kg\":8",
            "\"kg\":7.5"),
        Of("order.practise", Severity.Consider, "b1s1", Class("", B("main", "", S("kettlebell-swing"))), "kettlebell-swing", "hip-hinge"),
        // In a rotation somebody begins at the weight.
        Of("order.practise", Severity.Consider, "b1s2", Class("", Rotation("", S("squat"), S("goblet-squat"))), "\"format\":\"rotation\"",
            "\"format\":\"together\""),
        Of(
            "order.grip",
            Severity.Consider,
            "b1s2",
            Class("",
                B("main", "\"betweenStations\":59", S("deadlift"),
                    S("squat", main: """ "load":{"implement":"dumbbell","kg":15,"count":2}"""))),
            ":59",
            ":60",
            mends: false),
        Of("order.trunk", Severity.Consider, "b1s2",
            Class("", B("main", "\"betweenStations\":59", S("plank"), S("romanian-deadlift"), S("squat"))), ":59", ":60"),

        Of("leg.long", Severity.Consider, "b1s1", Class("", B("main", "", S("split-squat", T(91), "\"sides\":\"each\""))), ":91", ":90"),
        Of("leg.long", Severity.Fix, "b1s1", Class("", B("main", "", S("split-squat", T(151), "\"sides\":\"each\""))), ":151", ":90"),
        // A string goes on one leg from station to station; ten seconds between end the run.
        Of("leg.long", Severity.Consider, "b1s1",
            Class("", B("main", "\"betweenStations\":9", S("split-squat", T(50), "\"sides\":\"each\",\"withNext\":true"),
                S("reverse-lunge", T(41), "\"sides\":\"each\""))), "Stations\":9", "Stations\":10"),
        Of("leg.uneven", Severity.Fix, "class",
            Class("", B("main", "", S("split-squat", Reps(10, "\"side\":\"left\"") + "," + Reps(9, "\"side\":\"right\"")))), "amount\":9",
                "amount\":10"),
        Of("leg.uneven", Severity.Fix, "class", Class("", B("main", "", S("split-squat", Reps(10, "\"side\":\"left\"")))), "\"dose\":[",
            $"\"dose\":[{Reps(10, "\"side\":\"right\"")},"),
        Of("leg.uneven", Severity.Note, "class", Class("", B("main", "", S("reverse-lunge", Reps(11, "\"side\":\"alternate\"")))), ":11",
            ":12"),
        Of(
            "leg.uneven",
            Severity.Fix,
            "class",
            Class("", B("main", "", S("split-squat", T(40, "left")), S("split-squat", T(29, "right")))),
            ":29",
            ":30"),
        Of("side.unsaid", Severity.Fix, "b1s1", Class("", B("warmup", "", S("march", T(30)))), "\"side\":\"both\"",
            "\"side\":\"alternate\""),
        Of("hold.long", Severity.Note, "b1s1", Class("", B("main", "", S("wall-sit", """{"kind":"hold","amount":61}"""))), ":61", ":60"),
        Of(
            "hold.long",
            Severity.Note,
            "b1s1",
            Class("", B("main", "", S("single-leg-bridge", """{"kind":"hold","amount":121}""", "\"sides\":\"split\""))),
            ":121",
            ":120",
            mends: false),

        Of("mix.family", Severity.Consider, "class",
            Class("", B("main", "", S("squat", T(100)), S("hip-hinge", T(95)), S("glute-bridge", T(5)),
                S("split-squat", T(51), "\"sides\":\"split\""))), ":5,", ":30,", mends: false),
        Of("mix.plane", Severity.Note, "class",
            Class("", B("main", "", S("squat"), S("hip-hinge"), S("glute-bridge"), S("split-squat", more: "\"sides\":\"split\""))),
                "split-squat", "side-lunge"),
        Of("mix.led", Severity.Consider, "class",
            Class("", B("main", "", S("squat", T(100)), S("wide-squat", T(100)), S("split-squat", T(101), "\"sides\":\"split\""),
                S("hip-hinge", T(100)))), ":101", ":100", mends: false),

        Of(
            "options.missing",
            Severity.Consider,
            "b1s1",
            Class("", B("main", "", S("squat", options: """{"tier":"easier","move":"box-squat"}"""))),
            "\"phase\":\"main\"",
            "\"phase\":\"warmup\""),
        Of(
            "options.order",
            Severity.Consider,
            "b1s1o2",
            Class("", B("main", "", S("squat", options: """{"tier":"easier","move":"jump-squat"}"""))),
            "\"move\":\"jump-squat\"",
            "\"move\":\"squat\",\"depth\":\"half\""),
        Of(
            "options.hop",
            Severity.Fix,
            "b1s1",
            Class("",
                B("main", "",
                    S("jump-squat", Reps(5), options: """{"tier":"harder","move":"jump-squat","load":{"implement":"dumbbell","kg":2}}"""))),
            "\"harder\",\"move\":\"jump-squat\"",
            "\"harder\",\"move\":\"squat\""),
        Of(
            "options.load",
            Severity.Consider,
            "b1s1",
            Class("", B("main", "", S("goblet-squat", options: """{"tier":"easier","move":"goblet-squat","depth":"half"}"""))),
            "\"easier\",\"move\":\"goblet-squat\"",
            "\"easier\",\"move\":\"squat\""),
        Of(
            "options.band",
            Severity.Consider,
            "b1s1",
            Class("",
                B("main", "",
                    S("squat", main: "\"band\":\"light\"", options: """{"tier":"easier","move":"squat","band":"light","depth":"half"}"""))),
            "\"easier\",\"move\":\"squat\",\"band\":\"light\"",
            "\"easier\",\"move\":\"squat\",\"band\":\"none\""),
        Of("options.kneel", Severity.Consider, "b1s1",
            Class("", B("main", "", S("bird-dog", T(30, "alternate"), main: "\"surface\":\"mat\""))), "\"surface\":\"mat\"",
                "\"surface\":\"pad\""),
        Of(
            "options.hold",
            Severity.Consider,
            "b1s1",
            Class("",
                B("main", "",
                    S("lunge-to-single-hinge", T(30, "alternate"),
                        options: """{"tier":"easier","move":"lunge-to-single-hinge","support":"handOnThigh"}"""))),
            "handOnThigh",
            "hand"),
        Of(
            "options.depth",
            Severity.Consider,
            "b1s1",
            Class("",
                B("main", "",
                    S("squat", main: "\"depth\":\"full\"",
                        options: """{"tier":"easier","move":"squat","depth":"full","tempo":"3-0-1-0"}"""))),
            "\"depth\":\"full\",\"tempo\"",
            "\"depth\":\"quarter\",\"tempo\""),
        Of(
            "options.clash",
            Severity.Stop,
            "b1s1o1",
            Class("", B("main", "", S("side-bound", T(20, "alternate"), main: """ "load":{"implement":"dumbbell","kg":2.5,"count":2}"""))),
            "2.5",
            "2"),
        Of(
            "options.clash",
            Severity.Stop,
            "b1s1o2",
            Class("",
                B("main", "",
                    S("jump-squat", T(20),
                        options: """{"tier":"harder","move":"jump-squat","load":{"implement":"barbell","kg":20,"position":"back"}}"""))),
            ",\"position\":\"back\"",
            ",\"position\":\"sides\""),
        Of("words.names", Severity.Consider, "b1s2",
            Class("", B("main", "", S("squat", more: "\"name\":\"Sit\""),
                S("squat", more: "\"name\":\"Sit down\"", main: "\"depth\":\"half\""))), "Sit down", "Sit"),
        Of("words.names", Severity.Consider, "b1s2",
            Class(
                "", B("main", "", S("squat", more: "\"name\":\"Legs\""), S("hip-hinge", more: "\"name\":\"Legs\""))), "hip-hinge", "squat"),
        Of("kit.onOff", Severity.Note, "class", Class("", B("main", "\"rounds\":2", S("band-squat"), S("squat"))), "\"rounds\":2",
            "\"rounds\":1", mends: false),
    ];

    [Theory]
    [MemberData(nameof(Cases))]
    public void A_rule_finds_what_is_past_its_limit_and_nothing_short_of_it(Case of)
    {
        var found = Assert.Single(Good(of.Trips).Findings, f => f.Code == of.Code && f.Place.Value == of.Place);
        Assert.Equal(of.Severity, found.Severity);
        Assert.True(found.What.Length > 10 && found.Why.Length > 10 && found.Source.Length > 3, found.ToString());
        Assert.Equal(found.Pointer.Length == 0, of.Place == "class");
        Assert.DoesNotContain(Good(of.Just).Findings, f => f.Code == of.Code && f.Place.Value == of.Place);
    }

    [Theory]
    [MemberData(nameof(Cases))]
    public void A_repair_clears_its_finding_and_makes_nothing_worse(Case of)
    {
        var mender = Mender.Of(JsonElement.Parse(Encoding.UTF8.GetBytes(of.Trips)), Desk)!;
        var offers = mender.Offers(() => false, TestContext.Current.CancellationToken)
            .Offers.Where(o => o.Finding == $"{of.Code}@{of.Place}")
            .ToArray();
        Assert.Equal(of.Mends, offers.Length > 0);
        foreach (var offer in offers)
        {
            Assert.NotEmpty(offer.Words);
            Holds(of.Trips, offer);
        }
    }

    /// <summary>
    /// Applied from outside, and looked at anew: the finding is gone, nothing above it is new, and the class is no longer than
    /// its slot, or than it was.
    /// </summary>
    internal static void Holds(string text, RepairOffer offer)
    {
        var before = Evaluate(text);
        var mended = Mended(text, offer.Finding, offer.Repair)!;
        var after = Evaluate(mended);
        Assert.True(after.Evaluation is not null, $"{offer.Finding} {offer.Title}: {string.Join(" ", after.Faults)}");
        var severity = before.Evaluation!.Findings.First(f => f.Key == offer.Finding).Severity;
        Assert.DoesNotContain(after.Evaluation.Findings, f => f.Waived is null && f.Key == offer.Finding);
        Assert.DoesNotContain(after.Evaluation.Findings, f => f.Waived is null && f.Severity < severity
            && !before.Evaluation.Findings.Any(b => b.Key == f.Key && b.Severity <= f.Severity));
        Assert.True(after.Timeline!.Length.Value <= Math.Max(before.Plan!.Slot.Value, before.Timeline!.Length.Value),
            $"{offer.Title} makes it longer: {after.Timeline.Length}");
    }

    [Fact]
    public void Every_repair_of_a_random_class_keeps_its_word() => RandomClasses.Text.Sample(
        text =>
        {
            foreach (var offer in Mender.Of(JsonElement.Parse(Encoding.UTF8.GetBytes(text)),
                    Desk)?.Offers(() => false, TestContext.Current.CancellationToken).Offers
                    ?? [])
            {
                Holds(text, offer);
            }
        },
        iter: 300,
        print: text => text);

    [Fact]
    public void Findings_stand_by_severity_then_the_class_then_time_and_what_is_waived_last()
    {
        var text = Class(
            """ "waivers":[{"code":"side.unsaid","place":"b2s1","reason":"known"},{"code":"people.gap","place":"b2s1","reason":"not here"}], """,
            B("warmup", "", S("march")), B("main", "", S("skater"), S("jump-squat"), S("split-squat")));
        var found = Good(text).Findings;
        Assert.Equal("side.unsaid@b2s1", found[^1].Key);
        Assert.Equal("known", found[^1].Waived);
        var open = found.RemoveAt(found.Length - 1);
        Assert.DoesNotContain(open, f => f.Waived is not null);
        Assert.Equal(open.OrderBy(f => f.Severity).ThenBy(f => f.Pointer.Length > 0).ThenBy(f => f.At.Value), open);
        Assert.Equal(["class", "class", "b1s1", "b2s2", "b2s3"], open.Where(f => f.Severity == Severity.Fix).Select(f => f.Place.Value));
        Assert.Equal(found.Length, found.Select(f => f.Key).Distinct().Count());
    }

    [Theory]
    [InlineData("time.drink", 19.9, 20.1, 1200)]
    [InlineData("leg.long", 99, 101, 100)]
    [InlineData("time.idle", 0.4, 0.6, 50)]
    public void A_limit_of_the_settings_is_kept_and_a_rule_that_is_off_is_silent(string code, double tight, double loose, int seconds)
    {
        var text = code switch
        {
            "time.drink" => Class("", B("main", "", S("squat", T(seconds)))),
            "leg.long" => Class("", B("main", "", S("split-squat", T(seconds), "\"sides\":\"each\""))),
            _ => Class("", Rotation("\"windowSeconds\":100", S("squat", T(seconds)), S("hip-hinge", T(100)))),
        };
        Finding? Found(Preferences preferences) => new Evaluator(Library, preferences).Evaluate(text)
            .Evaluation!.Findings.FirstOrDefault(f => f.Code == code && f.Severity <= Severity.Consider);
        Preferences Limit(double limit) => new() { Limits = new Preferences().Limits.Add(code, (decimal)limit) };
        Assert.NotNull(Found(Limit(tight)));
        Assert.True(Found(Limit(loose)) is null or { Code: "leg.long", Severity: Severity.Consider });
        Assert.Null(Found(Limit(tight) with { Off = new Preferences().Off.Add(code, "we know") }));
    }

    /// <summary>docs/checks.md says what the code says: every rule with its sentence, source and school, and what can be set.</summary>
    [Fact]
    public void The_documented_checks_are_those_of_the_code()
    {
        var said = File.ReadAllText(Path.Combine(Path.GetDirectoryName(Here())!, "../../docs/checks.md"));
        Assert.All(Rules.All, r =>
            Assert.Contains($"| `{r.Code}` | {r.Says} | {r.Why} | "
                + $"{r.Source}{(r.Others.Length > 0 ? $". {r.Others}" : "")} |", said, StringComparison.Ordinal));
        Assert.Equal(Rules.All.Length, said.Split('\n')
            .Count(
                line =>
                    line.StartsWith("| `", StringComparison.Ordinal)
                        && line.Contains('.', StringComparison.Ordinal)) - Thresholds.Adjustable.Count);
        Assert.All(Thresholds.Adjustable, a =>
            Assert.Contains(FormattableString.Invariant($"| `{a.Key}` | {a.Value.Usual} {a.Value.Unit} | {a.Value.Least}–{a.Value.Most} |"),
                said, StringComparison.Ordinal));
    }

    private static string Here([System.Runtime.CompilerServices.CallerFilePath] string path = "") => path;

    [Fact]
    public void Every_rule_that_looks_at_a_class_alone_has_its_case()
    {
        var without = Rules.All.Where(
            r => r.Code.Split('.')[0] is not ("people" or "room" or "week") && r.Code is not ("kit.short" or "kit.unknown"));
        Assert.Empty(without.Select(r => r.Code).Except(Cases.Select(c => c.Data.Code)));
        Assert.Equal(Rules.All.Length, Rules.All.Select(r => r.Code).Distinct().Count());
    }
}
