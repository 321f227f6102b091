using System.Collections.Immutable;
using Halterion.Core.Moves;
using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;
using Halterion.Core.Words;

namespace Halterion.Core.Leading;

/// <summary>Writes each thing that is shown once, however often it comes back.</summary>
internal sealed class CardWriter(ClassPlan plan, Preferences preferences)
{
    /// <summary>What makes a card another: one station is shown in each part, on each side and in each round as it is then.</summary>
    private readonly record struct Key(int Block, int? Station, int Round, int? Part, Side Side, Viewpoint? View, Tier First);

    private readonly Dictionary<Key, int> indices = [];
    private readonly ImmutableArray<StationCard>.Builder cards = ImmutableArray.CreateBuilder<StationCard>();

    public ImmutableArray<StationCard> Cards => cards.ToImmutable();

    /// <summary>A station as it is done in one part, or in all of its dose.</summary>
    /// <param name="part">From 0; null: all of the dose.</param>
    public int Of(int block, int station, int round, int? part, Side side, Viewpoint? view = null, Tier first = Tier.Main) =>
        Once(new Key(block, station, round, part, side, view, first), () =>
        {
            var of = plan.Blocks[block].Stations[station];
            var shown = of.Options.FirstOrDefault(o => o.Tier == first) ?? of.Main;
            var only = side != Side.Both ? side : of.OnlySide;
            return Card(of, part is { } p ? of.Dose[p] : null, PlanWords.Target(of, plan.Blocks[block], round)) with
            {
                Id = of.Id,
                Option = shown.Id,
                Part = part + 1,
                Side = only,
                View = view,
            };
        });

    /// <summary>What is done in the rests of a block.</summary>
    public int OfRecovery(int block, Seconds length) => Once(new Key(block, null, length.Value, null, Side.Both, null, Tier.Main), () =>
    {
        var options = plan.Blocks[block].Recovery;
        var main = options.First(o => o.Tier == Tier.Main);
        var name = plan.Moves.Find(main.Move)?.Name ?? main.Move.Value;
        var resting = new Station { Id = main.Id, Name = name, Dose = [], Options = options };
        return Card(resting, null, $"{length}") with { Option = main.Id };
    });

    private int Once(Key key, Func<StationCard> write)
    {
        if (!indices.TryGetValue(key, out var index))
        {
            indices.Add(key, index = cards.Count);
            cards.Add(write());
        }

        return index;
    }

    private StationCard Card(Station station, Part? part, string target)
    {
        ImmutableArray<string> Of(Tier tier) =>
            [.. station.Options.Where(o => o.Tier == tier).Select(o => PlanWords.Option(o, station, plan.Moves, preferences))];
        var main = plan.Moves.Find(station.Main.Move)!;
        var move = part is null ? main : plan.Moves.Find(part.Move) ?? main;
        return new StationCard(
            part is null ? station.Name : PlanWords.Work(part, station, plan.Moves),
            move.Family,
            target,
            Of(Tier.Harder),
            part is null || part.Move == main.Id ? PlanWords.Option(station.Main, plan.Moves, preferences) : move.Name,
            Of(Tier.Easier),
            Watch(move))
        {
            Cue = move.Cues is [var cue, ..] ? cue : "",
            Options =
            [
                .. station.Options.Where(o => o.Tier != Tier.Main)
                    .Select(o => new ShownOption(o.Id, o.Tier, Differs.Named(o, station, plan.Moves, preferences))),
            ],
        };
    }

    /// <summary>The usual fault, and what is said of it; where nothing is, what mends it.</summary>
    private static string Watch(Move move) => move.Faults.IsDefaultOrEmpty ? ""
        : move.Faults[0].Say is { Length: > 0 } say ? $"{move.Faults[0].Seen}. Say: {say}"
        : $"{move.Faults[0].Seen}. {move.Faults[0].Fix}";
}
