using Halterion.Core.Plans;

namespace Halterion.Core.PlanFormat;

/// <summary>The fields of a block, and which of its shapes take them.</summary>
internal sealed class BlockTable : Table<Block, BlockPlace>
{
    public BlockTable() : base("a block", "A part of a class: done together, in rotation, or talk.")
    {
        var worked = In(s => s.HasStations, "");
        var inRounds = In(s => s.IsInRounds, "own pace has no changeovers and no optional rounds");
        var ownPace = In(s => s == BlockShape.OwnPace, "a goal belongs to an own-pace block");

        Add(PlaceIds.Field<Block, BlockPlace>(b => b.Id, (b, id) => b with { Id = id }, p => p.ById));
        Add("name", new PlainText(1, 120), b => b.Name, (b, v) => b with { Name = v }, Required);
        Add("phase", new OneWord<Phase>(), b => b.Phase, (b, v) => b with { Phase = v }, Required);
        Add("notes", new PlainText(0, 4000), b => Unless("", b.Notes), (b, v) => b with { Notes = v });
        Add("shownBy", new PlainText(1, 120), b => b.ShownBy, (b, v) => b with { ShownBy = v });

        // Format and order say the shape, which is known before anything else is read.
        Add(new(
            "format", () => Schemas.Words("together", "rotation", "talk"), (_, _, b, _) => b,
            b => b.Shape switch
            {
                BlockShape.Talk => "talk",
                BlockShape.Rotation => "rotation",
                BlockShape.Circuit or BlockShape.OnTheClock or BlockShape.Sets or BlockShape.OwnPace => null,
            }));
        Add(new(
            "order", () => Schemas.Words("circuit", "sets", "ownPace"), (_, _, b, _) => b,
            b => b.Shape switch
            {
                BlockShape.Sets => "sets",
                BlockShape.OwnPace => "ownPace",
                BlockShape.Circuit or BlockShape.OnTheClock or BlockShape.Rotation or BlockShape.Talk => null,
            })
        { Only = worked });

        Add("seconds", new LengthInSeconds(1, 3600), b => b.Shape is BlockShape.Talk or BlockShape.OwnPace ? b.Length : null,
            (b, v) => b with { Length = v },
            only: In(s => s is BlockShape.Talk or BlockShape.OwnPace, "seconds belong to a talk or to an own-pace block"));
        Add("show", new ListOf<Showing>(new Thing<Showing>(PlanLanguage.Showing, BlankShowing, "PlanShowing"), 1, 60, "stations"),
            b => b.Show.IsEmpty ? null : b.Show, (b, v) => b with { Show = v },
            only: In(s => s == BlockShape.Talk, "a walk-through belongs to a talk"));
        Add("goalReps", new WholeNumber(1, 100_000), b => b.GoalReps, (b, v) => b with { GoalReps = v }, only: ownPace);
        Add("goalShared", new YesOrNo(), b => OnlyTrue(b.GoalShared), (b, v) => b with { GoalShared = v }, only: ownPace);
        Add("rounds", new WholeNumber(1, 20), b => b.GoalRounds ? b.Rounds : Unless(1, b.Rounds),
            (b, v) => b with { Rounds = v, GoalRounds = b.Shape == BlockShape.OwnPace }, only: worked);
        Add("optionalRounds", new WholeNumber(0, 19), b => Unless(0, b.OptionalRounds), (b, v) => b with { OptionalRounds = v },
            only: inRounds);
        Add("sidePass", new OneWord<SidePass>(), b => Unless(SidePass.Station, b.SidePass), (b, v) => b with { SidePass = v },
            only: worked);
        Add("windowSeconds", new EachRound<Seconds>(new LengthInSeconds(5, 1800)), b => b.Window, (b, v) => b with { Window = v },
            only: In(s => s == BlockShape.Rotation, "a work interval only works in a rotation"));
        Add("startEverySeconds", new LengthInSeconds(5, 1800), b => b.StartEvery, (b, v) => b with { StartEvery = v },
            only: In(s => s == BlockShape.OnTheClock, "timed starts only work in a circuit"));
        Add("betweenStations", new LengthInSeconds(0, 600), b => Unless(Seconds.Zero, b.BetweenStations),
            (b, v) => b with { BetweenStations = v }, only: inRounds);
        Add("betweenSets", new EachRound<Seconds>(new LengthInSeconds(0, 600)), b => Rests(b.BetweenSets),
            (b, v) => b with { BetweenSets = v }, only: In(s => s == BlockShape.Sets, "rest between sets only works in straight sets"));
        Add("betweenRounds", new EachRound<Seconds>(new LengthInSeconds(0, 600)), b => Rests(b.BetweenRounds),
            (b, v) => b with { BetweenRounds = v },
            only: In(s => s.RestsBetweenRounds, "rests between rounds belong to a circuit or a rotation"));
        Add("afterSeconds", new LengthInSeconds(0, 600), b => Unless(Seconds.Zero, b.After), (b, v) => b with { After = v });
        Add("leadInSeconds", new LengthInSeconds(0, 120), b => b.OwnLeadIn, (b, v) => b with { OwnLeadIn = v }, only: worked);
        Add("startSide", new OneWord<Side>(Side.Left, Side.Right), b => b.OwnStartSide, (b, v) => b with { OwnStartSide = v },
            only: worked);
        Add("count", new OneWord<Counting>(), b => b.OwnCount, (b, v) => b with { OwnCount = v }, only: worked);
        Add("gate", new OneWord<Gate>(), b => Unless(Gate.Bell, b.Gate), (b, v) => b with { Gate = v }, only: worked);
        Add("keep", new OneWord<Keep>(), b => b.OwnKeep == b.UsualKeep ? null : b.OwnKeep, (b, v) => b with { OwnKeep = v });
        Add("water", new YesOrNo(), b => OnlyTrue(b.Water), (b, v) => b with { Water = v });
        Add("say", new Thing<Saying>(PlanLanguage.Saying, new Saying("", Seconds.Zero), "PlanSaying"), b => b.Say,
            (b, v) => b with { Say = v }, only: worked);
        Add(OptionTable.Listed<Block, BlockPlace>(
            "recovery", OptionsAt.Apart, b => b.Recovery, (b, v) => b with { Recovery = v }, (_, p) => p.ById + "r") with
        { Only = worked });
        Add("recoveryIn", new OneWord<RecoveryIn>(), b => b.Recovery.IsEmpty ? null : Unless(RecoveryIn.Rests, b.RecoveryIn),
            (b, v) => b with { RecoveryIn = v },
            only: In(s => s.IsInRounds, "recovery is done in the rest at the end of an own-pace block"));

        // A station is read with all of its block known, but for the stations.
        Add(new(
            "stations", () => Schemas.List(Schemas.Of("PlanStation"), 1, MostStations),
            (context, fields, b, place) => b with { Stations = context.Stations(fields, b, place) },
            b => b.Stations.IsEmpty ? null : new ListOfThings(b.Stations.Select(PlanLanguage.Station.Write)).Json)
        { Only = worked, Last = true, AlsoAbsent = true });
    }

    public const int MostStations = 16;

    private static readonly Showing BlankShowing = new(default, Seconds.Zero, null, Tier.Main);

    /// <summary>The fields that a shape takes, in their order.</summary>
    public IEnumerable<string> TakenBy(BlockShape shape)
    {
        var block = PlanLanguage.BlankBlock with { Shape = shape };
        return All.Where(f => f.Only is not { } only || only.Takes(block, default)).Select(f => f.Name);
    }

    private Belongs<Block, BlockPlace> In(Func<BlockShape, bool> takes, string why) =>
        new((b, _) => takes(b.Shape), (b, _) => b.Shape == BlockShape.Talk ? TalkTakes() : why);

    private string TalkTakes()
    {
        var names = TakenBy(BlockShape.Talk).Where(n => n != "format").ToArray();
        return $"a talk takes only {string.Join(", ", names[..^1])} and {names[^1]}";
    }

    private static ByRound<Seconds>? Rests(ByRound<Seconds> rests) => rests.Values is [{ Value: 0 }] ? null : rests;
}
