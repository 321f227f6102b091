using System.Collections.Immutable;
using Halterion.Core.Plans;
using Halterion.Core.Timing;

namespace Halterion.Core.Checks;

/// <summary>All rules, in the order of docs/checks.md.</summary>
public static class Rules
{
    /// <summary>Each once.</summary>
    public static readonly ImmutableArray<Rule> All =
    [
        new EndsInTime(), new FillsItsSlot(), new TargetsFitTheBell(), new ChangesAreLongEnough(), new SwitchesAreLongEnough(),
            new ThereIsTimeToSayIt(),
        new GoalsCanBeReached(), new ThereIsADrinkBreak(), new WarmsUp(), new CoolsDown(), new MovesAreExplained(), new NobodyStandsIdle(),
            new RepsAreAtAPace(),
        new StrengthRests(), new DensitySuitsTheAim(), new RepsSuitTheAim(),
        new FamiliesTakeTurns(), new JumpsComeEarly(), new LandingsAreFew(), new LoadsArePractised(), new GripRecovers(),
            new TrunkRecovers(),
        new LegsGetABreak(), new LegsDoTheSame(), new SidesAreSaid(), new HoldsEnd(),
        new FamiliesAreMixed(), new SomethingGoesSideways(), new KneesAndHipsShare(),
        new OptionsBothWays(), new OptionsInOrder(), new HopsHaveASoftWay(), new LoadsCanBeLeft(), new BandsCanBeLeft(),
            new KneesAreSpared(),
        new BalanceIsHeld(), new DepthCanBeLess(), new NothingClashes(), new OneNameForOneMove(),
        new EveryoneHasSomethingToDo(), new LimitsAreKept(), new EveryoneIsReady(), new TheRoomIsMet(), new LimitsAreCurrent(),
        new KitGoesRound(), new KitIsListed(), new BandsStayOn(),
        new EverythingFitsTheFloor(), new TravellersHaveLanes(), new MachinesAreFree(), new StationsAreManned(),
        new FamiliesRest(), new LoadRisesSlowly(), new WeekSetsAreRight(), new ClassesDiffer(),
    ];

    /// <summary>
    /// All findings, at most one a code and place: by severity, what is about the class first, then by time in the class; what is
    /// waived says why and stands last.
    /// </summary>
    /// <param name="waived">For the occasion: what depends on who comes, and where.</param>
    public static ImmutableArray<Finding> Check(ClassReview review, ImmutableArray<Waiver> waived = default)
    {
        var ofClass = Reasons(review.Plan.Waivers);
        var ofSession = Reasons(waived.IsDefault ? [] : waived);
        var pointers = Places.PointersOf(review.Plan);
        var starts = StartsOf(review);
        var names = NamesOf(review.Plan);
        return
        [
            .. All.Where(rule => !review.Settings.Off.ContainsKey(rule.Code))
                .SelectMany(rule => rule.Check(review))
                .DistinctBy(f => (f.Code, f.Place))
                .Select(f => f with
                {
                    Pointer = pointers[f.Place],
                    Where = names[f.Place],
                    At = new Seconds(starts[f.Place]),
                    Waived = (f.OfSession ? ofSession : ofClass).GetValueOrDefault((f.Code, f.Place)),
                })
                .OrderBy(f => f.Waived is not null).ThenBy(f => f.Severity).ThenBy(f => f.Place != PlaceId.Class).ThenBy(f => f.At),
        ];
    }

    private static Dictionary<(string, PlaceId), string> Reasons(ImmutableArray<Waiver> waivers) =>
        waivers.GroupBy(w => (w.Code, w.Place)).ToDictionary(g => g.Key, g => g.First().Reason);

    /// <summary>When each place first comes: a station of a rotation with its block, an option with its station.</summary>
    private static Dictionary<PlaceId, int> StartsOf(ClassReview review)
    {
        var starts = new Dictionary<PlaceId, int> { [PlaceId.Class] = 0 };
        var blocks = new int?[review.Plan.Blocks.Length];
        var stations = new Dictionary<(int, int), int>();
        foreach (var span in review.Timeline.Spans)
        {
            blocks[span.Block] ??= span.Start.Value;
            if (span.Station is { } station)
            {
                stations.TryAdd((span.Block, station), span.Start.Value);
            }
        }

        for (var b = 0; b < blocks.Length; b++)
        {
            var block = review.Plan.Blocks[b];
            var start = blocks[b] ?? review.Timeline.Length.Value;
            starts[block.Id] = start;
            foreach (var option in block.Recovery)
            {
                starts[option.Id] = start;
            }

            for (var s = 0; s < block.Stations.Length; s++)
            {
                var at = stations.GetValueOrDefault((b, s), start);
                starts[block.Stations[s].Id] = at;
                foreach (var option in block.Stations[s].Options.Concat(block.Stations[s].Waiting))
                {
                    starts[option.Id] = at;
                }
            }
        }

        return starts;
    }

    private static Dictionary<PlaceId, string> NamesOf(ClassPlan plan)
    {
        var names = new Dictionary<PlaceId, string> { [PlaceId.Class] = "The class" };
        foreach (var block in plan.Blocks)
        {
            names[block.Id] = block.Name;
            foreach (var option in block.Recovery)
            {
                names[option.Id] = block.Name;
            }

            foreach (var station in block.Stations)
            {
                names[station.Id] = station.Name;
                foreach (var option in station.Options.Concat(station.Waiting))
                {
                    names[option.Id] = station.Name;
                }
            }
        }

        return names;
    }
}
