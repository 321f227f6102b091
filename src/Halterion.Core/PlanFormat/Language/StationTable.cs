using Halterion.Core.Plans;

namespace Halterion.Core.PlanFormat;

/// <summary>The fields of a station, and in which blocks it takes them.</summary>
internal sealed class StationTable : Table<Station, StationPlace>
{
    public StationTable() : base("a station", "A place in a block: a dose and the options to do it with.")
    {
        var oneByOne = In(
            s => s.IsOneByOne, "what is timed or said before a station belongs to a circuit or to sets");
        var shared = In(s => s != BlockShape.OwnPace, "pairs do not work in an own-pace block");

        Add(PlaceIds.Field<Station, StationPlace>(s => s.Id, (s, id) => s with { Id = id }, p => p.ById));
        Add("name", new PlainText(1, 120), s => s.HasOwnName ? s.Name : null, (s, v) => s with { Name = v, HasOwnName = true });
        Add("sides",
            new OneWord<SideRule>(SideRule.AsWritten, SideRule.Each, SideRule.Split) { Elsewhere = "alternate is a part's side" },
            s => Unless(SideRule.AsWritten, s.Sides), (s, v) => s with { Sides = v });
        Add("chunk", new WholeNumber(1, 1000), s => Unless(0, s.Chunk), (s, v) => s with { Chunk = v });
        Add(new(
            "sharing", () => Schemas.Words("own", "turns"),
            (_, fields, s, _) => s with { Turns = fields.Choice("sharing", ["own", "turns"]) == "turns" },
            s => s.Turns ? "turns" : null)
        { Only = shared });
        Add(OptionTable.Listed<Station, StationPlace>(
            "waiting", OptionsAt.Apart, s => s.Waiting, (s, v) => s with { Waiting = v }, (_, p) => p.ById + "w") with
        {
            Only = new(
                (s, p) => shared.Takes(s, p) && s.Turns,
                (s, p) => shared.Takes(s, p) ? "a partner’s task needs “two take turns”" : shared.Why(s, p)),
        });
        Add("switchSeconds", new EachRound<Seconds>(new LengthInSeconds(0, 60)), s => s.OwnSwitch, (s, v) => s with { OwnSwitch = v });
        Add("changeSeconds", new EachRound<Seconds>(new LengthInSeconds(0, 600)), s => s.OwnChange, (s, v) => s with { OwnChange = v },
            only: oneByOne);
        Add("betweenSets", new EachRound<Seconds>(new LengthInSeconds(0, 600)), s => s.OwnBetweenSets,
            (s, v) => s with { OwnBetweenSets = v }, only: In(s => s == BlockShape.Sets, "rest between sets only works in straight sets"));
        Add("startSide", new OneWord<Side>(Side.Left, Side.Right), s => s.OwnStartSide, (s, v) => s with { OwnStartSide = v });
        Add("withNext", new YesOrNo(), s => OnlyTrue(s.WithNext), (s, v) => s with { WithNext = v }, only: oneByOne);
        Add("view", new EachRound<Viewpoint>(new OneWord<Viewpoint>()), s => s.View, (s, v) => s with { View = v });
        Add("count", new OneWord<Counting>(), s => s.OwnCount, (s, v) => s with { OwnCount = v });
        Add("say", new Thing<Saying>(PlanLanguage.Saying, new Saying("", Seconds.Zero), "PlanSaying"), s => s.Say,
            (s, v) => s with { Say = v }, only: oneByOne);
        Add("demoSeconds", new DemoSeconds(), s => s.Demo.Values.IsEmpty ? null : s.Demo, (s, v) => s with { Demo = v }, only: oneByOne);

        // What a part's reps take hangs on the main option.
        Add(new(
            "dose", () => Schemas.List(Schemas.Of("PlanPart"), 1, MostParts),
            (context, fields, s, _) => s with { Dose = context.Dose(fields, s) },
            s => s.Dose.IsEmpty ? null : new ListOfThings(s.Dose.Select(PlanLanguage.Part.Write)).Json)
        { Required = true, Last = true });
        Add(OptionTable.Listed<Station, StationPlace>(
            "options", OptionsAt.Station, s => s.Options, (s, v) => s with { Options = v }, (_, p) => p.ById + "o") with
        { Required = true });
    }

    public const int MostParts = 12;

    /// <summary>The fields that a station takes in a block of a shape, in their order.</summary>
    public IEnumerable<string> TakenIn(BlockShape shape)
    {
        var place = new StationPlace(PlanLanguage.BlankBlock with { Shape = shape }, "");
        var station = PlanLanguage.BlankStation with { Turns = true };
        return All.Where(f => f.Only is not { } only || only.Takes(station, place)).Select(f => f.Name);
    }

    private static Belongs<Station, StationPlace> In(Func<BlockShape, bool> takes, string why) =>
        new((_, p) => takes(p.Block.Shape), why);
}
