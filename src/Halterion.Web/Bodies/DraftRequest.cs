using System.Collections.Immutable;
using System.Globalization;
using System.Text.Json;
using Halterion.Core;
using Halterion.Core.Checks;
using Halterion.Core.Moves;
using Halterion.Core.People;
using Halterion.Core.PlanFormat;
using Halterion.Core.Planning;
using Halterion.Core.Planning.Drafts;
using Halterion.Core.Plans;
using Halterion.Core.Room;
using Halterion.Web.Answers;

namespace Halterion.Web.Bodies;

/// <summary>How many main stations are wished for.</summary>
public sealed record StationCount(int? From = null, int? To = null);

/// <summary>What of a class is to stay.</summary>
/// <param name="Pinned">Ids of blocks, stations or options.</param>
public sealed record KeptRequest(JsonElement Plan, IReadOnlyList<PlaceId>? Pinned = null);

/// <summary>What an evening needs, everything inline; only the booked minutes must be said.</summary>
/// <param name="Shares">Wished parts of the main work by family, in proportion.</param>
/// <param name="WarmUpMinutes">0: on their own time; not said: what the checks find right.</param>
/// <param name="Include">Main moves that must be in it.</param>
/// <param name="Avoid">Moves that must be nowhere in it.</param>
/// <param name="Recent">Main moves of the last classes, latest first.</param>
/// <param name="Date">The day, such as 2026-11-26, or the start, such as 2026-11-26T18:00.</param>
/// <param name="Seconds">How long may be looked for, as a measure of work: the same brief and seed give the same drafts.</param>
/// <param name="Wishes">How much each term of the cost weighs: 0 never mind, 1 as usual, 2 very much.</param>
public sealed record DraftRequest(
    int SlotMinutes,
    string? Title = null,
    Aim? Aim = null,
    DraftShape? Shape = null,
    StationCount? Stations = null,
    IReadOnlyDictionary<string, decimal>? Shares = null,
    int? WarmUpMinutes = null,
    int? CoolDownMinutes = null,
    bool? Drink = null,
    bool? LowImpact = null,
    IReadOnlyList<MoveId>? Include = null,
    IReadOnlyList<MoveId>? Avoid = null,
    IReadOnlyList<IReadOnlyList<MoveId>>? Recent = null,
    IReadOnlyList<Person>? People = null,
    int? HeadCount = null,
    IReadOnlyList<StockLine>? Kit = null,
    RoomSize? Room = null,
    IReadOnlyList<HeldClass>? History = null,
    string? Date = null,
    KeptRequest? Keep = null,
    decimal? Seconds = null,
    int? Seed = null,
    IReadOnlyDictionary<string, decimal>? Wishes = null) : IRead<DraftRequest>
{
    private const int MostStations = 16;
    private const int MostMoves = 400;
    private const int MostMinutes = 60;
    private const decimal MostWeight = 2;

    public static DraftRequest? Read(Fields body, Faults faults)
    {
        var slot = body.Whole("slotMinutes", 5, 180, required: true);
        var warmUp = body.Whole("warmUpMinutes", 0, MostMinutes);
        if (warmUp is 1 or 2 && slot >= Thresholds.LongClass)
        {
            body.Fault("warmUpMinutes", $"{warmUp} min is no warm-up for a class of {slot} min.", "0 for their own time, or 3 and more");
        }

        var request = new DraftRequest(
            slot ?? 5, body.Text("title", 1, 120)?.Trim(), body.Choice<Aim>("aim"), body.Choice<DraftShape>("shape"), CountOf(body),
            Weights(body, "shares", 1000, FamilyWords, "family of the lower body"), warmUp, body.Whole("coolDownMinutes", 0, MostMinutes),
            body.Flag("drink"), body.Flag("lowImpact"),
            MovesOf(body, body.Items("include", 0, MostStations, "moves"), "include"),
            MovesOf(body, body.Items("avoid", 0, MostMoves, "moves"), "avoid"),
            RecentOf(body), ReviewRequest.PeopleOf(body, faults), body.Whole("headCount", 0, ReviewRequest.MostPeople),
            body.Has("kit") ? body.List("kit", 0, KitReader.MostLines, "a line of the stock", KitReader.Line) : null,
            body.Object("room") is { } room ? ReviewRequest.SizeOf(room) : null,
            body.Has("history") ? body.List("history", 0, 1000, "a past class", ReviewRequest.HeldOf) : null,
            ReviewRequest.StartOf(body), KeepOf(body, faults), body.Decimal("seconds", 0.1m, 10), body.Whole("seed", 0, 1_000_000),
            Weights(body, "wishes", MostWeight, DraftCost.Terms, "wish"));
        return slot is null ? null : request;
    }

    public static ImmutableArray<PlanFault> Beside(DraftRequest value, IServiceProvider services) =>
        value.FaultsFor(services.GetRequiredService<Evaluator>());

    private static readonly ImmutableArray<string> FamilyWords =
        [.. new[] { Family.Squat, Family.Lunge, Family.Hinge, Family.Bridge }.Select(WordsOf<Family>.Of)];

    /// <summary>The same as the search is given it.</summary>
    internal DraftBrief ToBrief()
    {
        var usual = new DraftBrief { SlotMinutes = SlotMinutes };
        var (from, to) = (Stations?.From, Stations?.To);
        return usual with
        {
            Title = Title ?? usual.Title,
            Aim = Aim ?? Core.Plans.Aim.Conditioning,
            Shape = Shape ?? DraftShape.Any,
            From = from ?? Math.Min(usual.From, to ?? usual.From),
            To = to ?? Math.Max(usual.To, from ?? usual.To),
            Shares = (Shares ?? ImmutableDictionary<string, decimal>.Empty)
                .ToImmutableSortedDictionary(s => WordsOf<Family>.All[s.Key], s => s.Value),
            WarmUpMinutes = WarmUpMinutes,
            CoolDownMinutes = CoolDownMinutes,
            Drink = Drink ?? false,
            LowImpact = LowImpact ?? false,
            Include = [.. Include ?? []],
            Avoid = [.. Avoid ?? []],
            Recent = [.. (Recent ?? []).Select(r => r.ToImmutableArray())],
            People = [.. People ?? []],
            HeadCount = HeadCount ?? 0,
            Kit = Kit?.ToImmutableArray(),
            Room = Room,
            Day = Date is null ? DateOnly.MinValue : DateOnly.ParseExact(Date[..10], "yyyy-MM-dd", CultureInfo.InvariantCulture),
            History = Date is not null && History is not null && ReviewRequest.When(Date) is { } at ? new History(at, [.. History]) : null,
            Keep = Keep is null ? null : new KeptParts(Keep.Plan, [.. Keep.Pinned ?? []]),
            Seconds = Seconds ?? usual.Seconds,
            Seed = Seed ?? usual.Seed,
            Wishes = new DraftWishes((Wishes ?? ImmutableDictionary<string, decimal>.Empty).ToImmutableSortedDictionary()),
        };
    }

    /// <summary>What the library and the class so far do not have.</summary>
    public ImmutableArray<PlanFault> FaultsFor(Evaluator evaluator)
    {
        var faults = new Faults();
        void Known(ImmutableArray<MoveId> moves, string at)
        {
            for (var i = 0; i < moves.Length; i++)
            {
                if (!evaluator.Moves.Has(moves[i]))
                {
                    faults.Add($"{at}/{i}", $"The library has no move “{moves[i]}”.", "the id of a move");
                }
            }
        }

        Known([.. Include ?? []], "/include");
        Known([.. Avoid ?? []], "/avoid");
        if (Keep is not { } keep)
        {
            return faults.All;
        }

        var read = evaluator.Evaluate(keep.Plan.GetRawText());
        if (read.Plan is not { } plan)
        {
            return [.. faults.All, .. read.Faults.At("", "/keep/plan")];
        }

        var places = plan.Blocks.Select(b => b.Id)
            .Concat(plan.Blocks.SelectMany(b => b.Stations).SelectMany(s => s.Options.Select(o => o.Id).Prepend(s.Id))).ToHashSet();
        var pinned = keep.Pinned ?? [];
        for (var i = 0; i < pinned.Count; i++)
        {
            if (!places.Contains(pinned[i]))
            {
                faults.Add($"/keep/pinned/{i}", $"The class has nothing called “{pinned[i]}”.", "the id of a block, station or option");
            }
        }

        return faults.All;
    }

    private static StationCount? CountOf(Fields body)
    {
        if (body.Object("stations") is not { } stations)
        {
            return null;
        }

        var (from, to) = (stations.Whole("from", 1, MostStations), stations.Whole("to", 1, MostStations));
        if (from > to)
        {
            stations.Fault("to", $"{to} is less than {from}.", "a number that is no less than “from”");
        }

        stations.Close("a number of stations");
        return new StationCount(from, to);
    }

    /// <summary>Numbers by name; null where none are said.</summary>
    private static ImmutableSortedDictionary<string, decimal>? Weights(
        Fields body, string name, decimal most, ImmutableArray<string> names, string what)
    {
        if (body.Object(name) is not { } map)
        {
            return null;
        }

        var weights = ImmutableSortedDictionary.CreateBuilder<string, decimal>(StringComparer.Ordinal);
        foreach (var key in map.Names.ToArray())
        {
            if (!names.Contains(key))
            {
                map.Fault(key, $"“{key}” is no {what}.", string.Join(", ", names));
            }
            else if (map.Decimal(key, 0, most) is { } weight)
            {
                weights[key] = weight;
            }
        }

        return weights.ToImmutable();
    }

    private static IReadOnlyList<IReadOnlyList<MoveId>> RecentOf(Fields body)
    {
        var lists = body.Items("recent", 0, 20, "classes");
        return
        [
            .. lists.Select((list, i) => MovesOf(body, body.Items(list, $"recent/{i}", 0, 100, "moves"), $"recent/{i}")),
        ];
    }

    private static IReadOnlyList<MoveId> MovesOf(Fields body, JsonElement[] items, string at)
    {
        var moves = ImmutableArray.CreateBuilder<MoveId>(items.Length);
        for (var i = 0; i < items.Length; i++)
        {
            if (items[i].ValueKind == JsonValueKind.String && JsonText.Of(items[i]) is { } id)
            {
                moves.Add(new MoveId(id));
            }
            else
            {
                body.FaultAt($"/{at}/{i}", $"This is {Fields.Kind(items[i])}.", "the id of a move");
            }
        }

        return moves.ToArray();
    }

    private static KeptRequest? KeepOf(Fields body, Faults faults)
    {
        if (body.Object("keep") is not { } keep)
        {
            return null;
        }

        var plan = keep.Json("plan", faults);
        var pinned = PinnedOf(keep);
        keep.Close("what is to be kept");
        return plan is { } file ? new KeptRequest(file, pinned) : null;
    }

    internal static PlaceId[] PinnedOf(Fields keep) =>
    [
        .. keep.Items("pinned", 0, 500, "ids").Where(p => p.ValueKind == JsonValueKind.String).Select(p => new PlaceId(p.GetString()!)),
    ];
}
