using System.Collections.Immutable;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using Halterion.Core.Checks;
using Halterion.Core.Moves;
using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;
using Halterion.Core.Room;
using Halterion.Core.Timing;

namespace Halterion.Core.Planning.Drafts;

/// <summary>A class file as the checks and who does what see it on the evening of the brief.</summary>
/// <param name="Plan">The file, everything in it named, with an option for everyone as far as there is one.</param>
/// <param name="Given">Null where nobody comes.</param>
public sealed record ReviewedDraft(
    JsonObject Plan, ClassReview Review, ImmutableArray<Finding> Findings, Assignment? Given, Totals Totals, Breakdown Breakdown)
{
    /// <summary>Every finding that is not waived.</summary>
    public IEnumerable<Finding> Open => Findings.Where(f => f.Waived is null);
}

/// <summary>Looks at classes as on the evening of a brief: the same people, kit, room and history as review is given.</summary>
public sealed class DraftReview(DraftBrief brief, MoveLibrary moves, Preferences preferences)
{
    private const int MostOptions = 9;
    private const int MostFills = 2;

    private readonly BareFloor floor = new(brief, moves);
    private readonly CheckSettings settings = CheckSettings.Of(preferences);

    /// <summary>What the checks say of a class file; null where it is no valid class.</summary>
    /// <param name="stock">What there is, where that is not the brief's.</param>
    public ReviewedDraft? Of(JsonObject file, ImmutableArray<StockLine>? stock = null)
    {
        for (var fills = 0; ; fills++)
        {
            var (named, read) = Read(file);
            if (read is null || Compiler.Compile(read).Timeline is not { } timeline)
            {
                return null;
            }

            var room = new RoomOf(
                read, brief.Day, brief.People, brief.HeadCount, [], stock ?? brief.Kit,
                ImmutableDictionary<PlaceId, ImmutableArray<ImmutableArray<PersonId>>>.Empty);
            var given = room.Heads > 0 ? Assigning.Of(room) : null;
            if (fills < MostFills && given is { Gaps.IsEmpty: false } && Filled(named, room, given))
            {
                file = named;
                continue;
            }

            var review = new ClassReview(
                read, timeline, settings, given is null ? null : new Occasion(room, given, brief.Room), brief.History);
            return new ReviewedDraft(named, review, Rules.Check(review), given, Totals.Of(read, timeline), Breakdown.Of(read, timeline));
        }
    }

    private (JsonObject Named, ClassPlan? Plan) Read(JsonObject plan)
    {
        var named = PlanIds.Written(JsonElement.Parse(Encoding.UTF8.GetBytes(plan.ToJsonString())));
        return (JsonNode.Parse(named.GetRawText())!.AsObject(), ClassReader.Read(Encoding.UTF8.GetBytes(named.GetRawText()), moves).Plan);
    }

    /// <summary>Gives whoever has nothing somewhere the best option for them; false where nothing was added. What stays is left.</summary>
    private bool Filled(JsonObject plan, RoomOf room, Assignment given)
    {
        var places = Place.Of(room.Plan).ToDictionary(p => p.Station.Id);
        var people = room.People.ToDictionary(p => p.Id);
        var added = new HashSet<string>();
        foreach (var gap in given.Gaps.Where(g => !Stays(plan, g.Station)))
        {
            if (GapProposals.For(people[gap.Person], places[gap.Station], room) is not { } option || brief.Avoid.Contains(option.Move))
            {
                continue;
            }

            var written = PlanWriter.Of(floor.Of(option));
            written.Remove("id");
            var options = StationOf(plan, gap.Station)["options"]!.AsArray();
            if (options.Count < MostOptions && added.Add($"{gap.Station} {written.ToJsonString()}"))
            {
                options.Add(written);
            }
        }

        return added.Count > 0;
    }

    /// <summary>A pinned block or station is not touched, whatever is missing there.</summary>
    private bool Stays(JsonObject plan, PlaceId station) => brief.Keep is { } keep
        && (keep.Pinned.Contains(station) || keep.Pinned.Any(p => plan["blocks"]!.AsArray().Any(b => (string?)b!["id"] == p.Value
            && (b["stations"] as JsonArray ?? []).Any(s => (string?)s!["id"] == station.Value))));

    private static JsonNode StationOf(JsonObject plan, PlaceId id) => plan["blocks"]!.AsArray()
        .SelectMany(b => b!["stations"] as JsonArray ?? []).First(s => (string?)s!["id"] == id.Value)!;
}
