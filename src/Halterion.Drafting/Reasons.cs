using System.Collections.Immutable;
using Halterion.Core.Checks;
using Halterion.Core.Moves;
using Halterion.Core.PlanFormat;
using Halterion.Core.Planning.Drafts;
using Halterion.Core.Plans;
using Halterion.Core.Room;

namespace Halterion.Drafting;

/// <summary>Why a draft is as it is, in words: a line for the whole with the wishes that gave way, then a line a station.</summary>
internal static class Reasons
{
    public static ImmutableArray<string> Of(DraftBrief brief, Tried tried, MoveLibrary moves)
    {
        var main = tried.Review.MainStations.ToArray();
        return [Whole(brief, tried, main), .. main.Select(s => Line(brief, tried, s, moves))];
    }

    private static string Whole(DraftBrief brief, Tried tried, StationAt[] main)
    {
        var gave = GaveWay(brief, tried, main).ToArray();
        return $"{main.Length} {(main.Length == 1 ? "station" : "stations")}, "
            + (brief.Heads > 0 ? "and everyone has a way to do each." : "each with an easier and a harder way.")
            + (gave.Length == 0 ? "" : $" What gave way: {string.Join("; ", gave)}.");
    }

    /// <summary>Wishes that cost something in this draft, those that cost most first, each as what was wished for.</summary>
    private static IEnumerable<string> GaveWay(DraftBrief brief, Tried tried, StationAt[] main) =>
        tried.Terms.Where(t => t.Value > 0).OrderByDescending(t => t.Value).Select(t => t.Key switch
        {
            "shares" => $"how much of each family (now {Families(tried)})",
            "stations" when brief.From == brief.To => $"the number of stations ({main.Length}, not {brief.From})",
            "stations" => $"the number of stations ({main.Length}, not {brief.From} to {brief.To})",
            "recent" => "something else than last time",
            "plane" => "something to the side",
            "neighbours" => "families that take turns",
            "order" => "the hardest move early",
            "aim" => "reps and rests as the aim has them",
            _ => "",
        }).Where(w => w.Length > 0);

    private static string Families(Tried tried) =>
        string.Join(", ", DraftCost.MadeOf(tried.Review).Select(f => $"{WordsOf<Family>.Of(f.Family)} {f.Percent} %"));

    private static string Line(DraftBrief brief, Tried tried, StationAt at, MoveLibrary moves)
    {
        var move = moves.Find(at.Station.Main.Move)!;
        var own = at.Station.Options.Where(o => o.Tier == Tier.Instead).Select(o => o.Id).ToHashSet();
        var apart = tried.Given?.People.Count(p => p.Stations.Any(s => s.Station == at.Id && s.Option is { } o && own.Contains(o))) ?? 0;
        string[] fetched =
        [
            .. Needs.Of(at.Station.Main, at.Station, moves).Where(n => n.Item != KitItem.Mat).Select(NeedWords.Of).Distinct(),
        ];
        string?[] said =
        [
            WordsOf<Family>.Of(move.Family),
            brief.Keep?.Raised?.Contains(at.Id) == true ? "one step harder"
                : !tried.Mains.Contains(move.Id) ? "kept as it is"
                : brief.Include.Contains(move.Id) ? "as you asked"
                : DraftCost.Recent(brief, move.Id) > 0 ? "again, as nothing else fits so well" : null,
            apart < 2 ? null : $"{apart} people do it another way",
        ];
        return $"{move.Name}: {string.Join(", ", said.OfType<string>())}{(fetched.Length == 0 ? "" : $" ({string.Join(", ", fetched)})")}.";
    }
}
