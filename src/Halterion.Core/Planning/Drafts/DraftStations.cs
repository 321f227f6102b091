using System.Collections.Concurrent;
using System.Collections.Immutable;
using System.Text.Json.Nodes;
using Halterion.Core.Checks;
using Halterion.Core.Demands;
using Halterion.Core.Moves;
using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;
using Halterion.Core.Room;
using Halterion.Core.Timing;

namespace Halterion.Core.Planning.Drafts;

/// <summary>
/// The stations that a brief can have: for each move one that gives everyone something, with what it costs by itself. Each is looked at
/// alone, by the same checks and the same assignment as the whole class.
/// </summary>
public sealed class DraftStations(DraftBrief brief, MoveLibrary moves, Preferences preferences)
{
    // [M] Groups that stand beside each other: so much more kit there is for one of them.
    private const int LeastGroups = 4;
    private const int UsualStretch = 30;

    private readonly Starters starters = new(moves, preferences);
    private readonly BareFloor floor = new(brief, moves);
    private readonly DraftReview review = new(brief, moves, preferences);
    private readonly ConcurrentDictionary<(MoveId, DraftShape), Lazy<DraftChoice?>> choices = new();
    private readonly ConcurrentDictionary<(KeptPart, MoveId), Lazy<(JsonObject Station, decimal Cost)?>> gentle = new();

    /// <summary>Main moves of what is kept, in their order.</summary>
    public ImmutableArray<MoveId> KeptMains { get; } = KeptBlocks.Of(brief.Keep).MainMoves;

    private sealed record Key(MoveId Move, DraftShape Shape, int Go, SideHabit Sides);

    /// <summary>How long, or how many reps, a go is where nothing else is known.</summary>
    public int UsualGo(DraftShape shape) => shape switch
    {
        DraftShape.Sets or DraftShape.Supersets or DraftShape.DropSets => brief.Aim switch
        {
            Aim.Strength => 6,
            Aim.Endurance => 16,
            Aim.Technique => 8,
            Aim.Conditioning => 12,
        },
        _ => brief.Aim == Aim.Endurance ? 50 : 40,
    };

    /// <summary>Moves of a family for a brief, those that most people know first.</summary>
    public IEnumerable<MoveId> Known(Family family)
    {
        var usual = MoveLibrary.Usual.Of(family);
        var heavy = brief.Aim == Aim.Strength && brief.Kit is not { Length: 0 } ? usual?.Heavy ?? [] : [];
        return heavy.Concat(usual?.Everyday ?? []).Concat(moves.Moves.Where(m => m.Family == family).Select(m => m.Id)).Distinct()
            .Where(m => !brief.Avoid.Contains(m) && !brief.NotMain.Contains(m) && moves.Has(m));
    }

    /// <summary>What a move costs as a main station of a shape; null where it cannot be one.</summary>
    public DraftChoice? Main(MoveId move, DraftShape shape) =>
        choices.GetOrAdd((move, shape), key => new Lazy<DraftChoice?>(() => Choice(key.Item1, key.Item2))).Value;

    /// <summary>A main station with so long a go, or so many reps; null where the move cannot be one.</summary>
    public JsonObject? Station(MoveId move, DraftShape shape, int go)
    {
        if (Main(move, shape) is not { } choice)
        {
            return null;
        }

        if (go == UsualGo(shape))
        {
            return choice.Station.DeepClone().AsObject();
        }

        if (Made(move, shape, go) is not { } made)
        {
            return null;
        }

        foreach (var extra in choice.Station["options"]!.AsArray().Where(o => (string?)o!["tier"] == "instead"))
        {
            if (made["options"]!.AsArray().All(o => !JsonNode.DeepEquals(o, extra)))
            {
                made["options"]!.AsArray().Add(extra!.DeepClone());
            }
        }

        return made;
    }

    /// <summary>Why a move cannot be a main station of a shape, in words; null where it can.</summary>
    public string? WhyNot(MoveId id, DraftShape shape)
    {
        if (Main(id, shape) is not null || moves.Find(id) is not { } move)
        {
            return null;
        }

        if (Made(id, shape, UsualGo(shape)) is { } made && brief.LowImpact)
        {
            var block = new JsonObject { ["name"] = "Alone", ["phase"] = "main", ["stations"] = new JsonArray(made) };
            if (ClassReader.ReadBlock(block, moves).Plan is { } plan && Compiler.Compile(plan).Timeline is { } timeline)
            {
                var alone = new ClassReview(plan, timeline, CheckSettings.Usual);
                if (alone.MainStations.SelectMany(s => alone.Works(s)).Any(p => p.HasImpact))
                {
                    return $"{move.Name} leaves the floor, and there are to be no jumps.";
                }
            }
        }

        return brief.Kit is { } kit && Needs.KitOf(move, moves).FirstOrDefault(n => !Supply.Lists(kit, n)) is not null
            ? $"{move.Name} needs kit that is not on the list." : $"{move.Name} cannot be done by everyone who comes, with what there is.";
    }

    private DraftChoice? Choice(MoveId id, DraftShape shape)
    {
        if (moves.Find(id) is not { } move || Made(id, shape, UsualGo(shape)) is not { } made)
        {
            return null;
        }

        var block = new JsonObject { ["name"] = "Alone", ["phase"] = "main", ["stations"] = new JsonArray(made) };
        if (shape == DraftShape.OneSideARound)
        {
            block["sidePass"] = "round";
        }

        // In a rotation only one of the groups is there at a time: the rest of the kit is with the others.
        var groups = Math.Max(LeastGroups, brief.From);
        var stock = shape == DraftShape.Rotation && brief.Kit is { } kit
            ? [.. kit.Select(l => l with { Count = l.Count * groups, Metres = l.Metres * groups })]
            : brief.Kit;
        if (Alone(block, stock) is not var (alone, station, cost))
        {
            return null;
        }

        var main = alone.Review.MainStations.Single();
        return brief.LowImpact && alone.Review.Works(main).Any(p => p.HasImpact) ? null : new DraftChoice(
            id, move.Family, cost + (DraftCost.Recent(brief, id) * brief.Wishes.Of("recent")),
            [.. alone.Given?.Kit.Where(k => k.Peak > 0).Select(k => $"{k.Item} {k.Kg} {k.HeightCm} {k.Strength} {k.Name}") ?? []],
            alone.Review.Works(main).Any(p => p.IsSideways),
            main.Station.Main.In(main.Station).Max(d => DemandModel.Of(d.Move, d.Manner, moves)?.Overall ?? 0),
            Known(move.Family).TakeWhile(m => m != id).Count(), station);
    }

    /// <summary>A block of one station, looked at by itself; null where it breaks what must hold.</summary>
    private (ReviewedDraft Draft, JsonObject Station, decimal Cost)? Alone(JsonObject block, ImmutableArray<StockLine>? stock)
    {
        var root = starters.ClassFields();
        root["format"] = "halterion-class";
        root["version"] = 1;
        root["title"] = "Alone";
        root["slotMinutes"] = 60;
        root["aim"] = WordsOf<Aim>.Of(brief.Aim);
        root["blocks"] = new JsonArray(block);
        if (review.Of(root, stock) is not { } draft)
        {
            return null;
        }

        var own = draft.Review.Plan.Blocks[0];
        var here = own.Stations[0].Options.Select(o => o.Id).Append(own.Stations[0].Id).ToHashSet();
        var found = draft.Open
            .Where(f => here.Contains(f.Place) || (f.Place == own.Id && f.Code is "kit.short" or "kit.unknown")).ToArray();
        if (found.Any(f => f.Severity is Severity.Stop or Severity.Fix || (brief.Kit is not null && f.Code == "kit.unknown"))
            || draft.Given is { Gaps.IsEmpty: false } or { Shortages.IsEmpty: false })
        {
            return null;
        }

        var priced = DraftCost.Findings([.. found]) * brief.Wishes.Of("findings");
        var station = draft.Plan["blocks"]![0]!["stations"]![0]!.DeepClone().AsObject();
        Unnamed(station);
        return (draft, station, priced + (DraftCost.AssignmentOf(draft.Given) * brief.Wishes.Of("assignment")));
    }

    /// <summary>Ids follow from the places of the class that it comes to stand in.</summary>
    private static void Unnamed(JsonObject station)
    {
        station.Remove("id");
        foreach (var option in station["options"]!.AsArray())
        {
            option!.AsObject().Remove("id");
        }
    }

    /// <summary>A station for a move in a shape; null where it cannot be done so, or lacks an easier or a harder option.</summary>
    private JsonObject? Made(MoveId id, DraftShape shape, int go)
    {
        if (moves.Find(id) is not { } move)
        {
            return null;
        }

        var like = shape is DraftShape.Any or DraftShape.Rotation or DraftShape.OnTheMinute ? DraftShape.Circuit
            : shape == DraftShape.Supersets ? DraftShape.Sets : shape;
        var station = moves.Once(new Key(id, like, go, preferences.Sides), () => (like switch
        {
            DraftShape.Sets => starters.Station(move, like: ShortDoseReader.Read($"{go}").Dose),
            DraftShape.DropSets => starters.Station(
                move, asTyped: true,
                like: ShortDoseReader.Read($"{go} at 100 % + 12 s rest + {go} at 70 % + 12 s rest + {go} at 40 %").Dose),
            DraftShape.OneSideARound => starters.Station(move, new Seconds(go), roundGivesSide: true),
            _ => starters.Station(move, new Seconds(go)),
        }).Station).DeepClone().AsObject();
        var options = station["options"]!.AsArray();
        var avoided = options.OfType<JsonObject>().Where(Avoided).ToArray();
        foreach (var option in avoided)
        {
            options.Remove(option);
        }

        OnTheFloor(options);
        if (!InStock(station))
        {
            return null;
        }

        bool Has(string tier) => options.Any(o => (string?)o!["tier"] == tier);
        if (avoided.Any(o => (string?)o["tier"] == "main") || !Has("easier") || !Has("harder"))
        {
            return null;
        }

        // A rep of each side at a time: only whole pairs are even.
        foreach (var part in move.Sided == Sided.Alternating ? station["dose"]!.AsArray() : [])
        {
            part!["amount"] = (string?)part["kind"] == "time" ? Even(move, go) : go + (go % 2);
        }

        return station;
    }

    /// <summary>
    /// What asks for kit that is on no list makes room for the next way that a coach gives; false where the main option does.
    /// </summary>
    private bool InStock(JsonObject station)
    {
        if (brief.Kit is not { } stock)
        {
            return true;
        }

        var block = new JsonObject { ["name"] = "Alone", ["phase"] = "main", ["stations"] = new JsonArray(station.DeepClone()) };
        if (ClassReader.ReadBlock(block, moves).Plan?.Blocks[0].Stations[0] is not { } read)
        {
            return false;
        }

        bool Listed(Option option) => Needs.Of(option, read, moves).All(n => Supply.Lists(stock, n));
        if (!Listed(read.Main))
        {
            return false;
        }

        var options = station["options"]!.AsArray();
        for (var i = read.Options.Length - 1; i >= 0; i--)
        {
            if (Listed(read.Options[i]))
            {
                continue;
            }

            options.RemoveAt(i);
            var tier = read.Options[i].Tier;
            var other = tier is Tier.Easier or Tier.Harder
                ? Proposals.All(new Doing(read.Main.Move, read.Main.Manner), tier, moves, weights: StockWeights.Of(stock))
                    .Select(p => floor.Of(OptionEntry.Into(p.Of, read, moves)))
                    .FirstOrDefault(o => Listed(o) && !brief.Avoid.Contains(o.Move)
                        && read.Options.All(own => own.Move != o.Move || !own.Manner.Equals(o.Manner)))
                : null;
            if (other is not null)
            {
                var written = PlanWriter.Of(other);
                written.Remove("id");
                options.Insert(i, written);
            }
        }

        return true;
    }

    /// <summary>Where there are no mats, what is done lying is done on the floor as it is.</summary>
    private void OnTheFloor(JsonArray options)
    {
        foreach (var option in options.OfType<JsonObject>())
        {
            if (option["surface"] is null && floor.IsBare(new MoveId((string)option["move"]!)))
            {
                option["surface"] = WordsOf<Surface>.Of(Surface.Floor);
            }
        }
    }

    private bool Avoided(JsonObject option) => brief.Avoid.Contains(new MoveId((string)option["move"]!));

    /// <summary>The longest time, no longer than this, that both sides share evenly, in seconds and in whole reps.</summary>
    private static int Even(Move move, int seconds)
    {
        if (move.Sided == Sided.TwoSided || move.Tempo is not { } tempo)
        {
            return seconds - (seconds % 2);
        }

        var rep = tempo.RepSeconds(RepStyle.Full);
        bool Shared(int whole) => whole % 2 == 0 && (int)(whole / rep) % 2 == 0;
        return Enumerable.Range(0, seconds - 1).Select(less => seconds - less).FirstOrDefault(Shared) is > 0 and var even ? even : seconds;
    }

    /// <summary>What readies for these families, each once, in the order in which it is done.</summary>
    internal ImmutableArray<MoveId> WarmUp(IEnumerable<Family> families)
    {
        var usual = MoveLibrary.Usual;
        var chosen = new List<MoveId>();
        void Take(IEnumerable<MoveId> from)
        {
            if (Cheapest(KeptPart.WarmUp, from.Where(m => !chosen.Contains(m))) is { } move)
            {
                chosen.Add(move);
            }
        }

        Take([usual.KeepMoving, usual.KeepMovingElse, .. moves.Moves.Where(m => m.Family == Family.Recovery).Select(m => m.Id)]);
        foreach (var own in families.Select(usual.Of).OfType<FamilyMoves>())
        {
            Take([own.WarmUp, own.Practise, .. own.Everyday.Where(m => moves.Find(m) is { Kit.Length: 0, Usual: null }).Take(5)]);
            if (own.Practise != own.WarmUp)
            {
                Take([own.Practise]);
            }
        }

        return [.. chosen];
    }

    /// <summary>What stretches these families, each once.</summary>
    internal ImmutableArray<MoveId> CoolDown(IEnumerable<Family> families)
    {
        var usual = MoveLibrary.Usual;
        var chosen = new List<MoveId>();
        foreach (var own in families.Select(usual.Of).OfType<FamilyMoves>().Select(f => f.Stretch).Append(usual.Quiet).Distinct())
        {
            var muscles = Words(own).ToHashSet();
            var near = moves.Moves.Where(m => m.Family == Family.Stretch && m.Id != own)
                .OrderByDescending(m => Words(m.Id).Count(muscles.Contains)).Select(m => m.Id);
            if (Cheapest(KeptPart.CoolDown, near.Prepend(own).Where(m => !chosen.Contains(m))) is { } move)
            {
                chosen.Add(move);
            }
        }

        return [.. chosen];
    }

    private IEnumerable<string> Words(MoveId move) =>
        (moves.Find(move)?.Muscles ?? "").ToLowerInvariant().Split([' ', ',', ';', '.'], StringSplitOptions.RemoveEmptyEntries);

    /// <summary>The first that costs nothing, else the cheapest of them; null where none can be done.</summary>
    private MoveId? Cheapest(KeptPart part, IEnumerable<MoveId> from)
    {
        (MoveId Move, decimal Cost)? best = null;
        foreach (var move in from.Where(m => !brief.Avoid.Contains(m) && moves.Has(m)))
        {
            if (Gentle(part, move) is { } made && (best is null || made.Cost < best.Value.Cost))
            {
                best = (move, made.Cost);
            }

            // [M] Within a point or two the usual one is the better one.
            if (best is { Cost: <= 2 })
            {
                break;
            }
        }

        return best?.Move;
    }

    /// <summary>A station of the warm-up or the cool-down that lasts so long.</summary>
    internal JsonObject Gentle(KeptPart part, MoveId move, int seconds)
    {
        var station = Gentle(part, move)!.Value.Station.DeepClone().AsObject();
        station["dose"]![0]!["amount"] = part == KeptPart.WarmUp ? Even(moves.Find(move)!, seconds) : seconds - (seconds % 2);
        return station;
    }

    private (JsonObject Station, decimal Cost)? Gentle(KeptPart part, MoveId move) =>
        gentle.GetOrAdd((part, move), key => new Lazy<(JsonObject, decimal)?>(() => Found(key.Item1, key.Item2))).Value;

    private (JsonObject Station, decimal Cost)? Found(KeptPart part, MoveId move)
    {
        JsonObject Plain() => part == KeptPart.WarmUp
            ? WarmsUp.Station(move, Even(moves.Find(move)!, UsualStretch), moves) : CoolsDown.Station(move, UsualStretch, moves);
        (JsonObject Station, decimal Cost)? Tried(JsonObject station)
        {
            var options = station["options"]!.AsArray();
            foreach (var option in options.OfType<JsonObject>().Where(Avoided).ToArray())
            {
                options.Remove(option);
            }

            OnTheFloor(options);
            var block = new JsonObject
            {
                ["name"] = "Alone",
                ["phase"] = part == KeptPart.WarmUp ? "warmup" : "cooldown",
                ["stations"] = new JsonArray(station),
            };
            return Alone(block, brief.Kit) is var (_, made, cost) ? (made, cost) : null;
        }

        var plain = Tried(Plain());
        return plain is { Cost: 0 } ? plain
            : new[] { Tried(WithTiers(Plain())), plain }.Where(t => t is not null).MinBy(t => t!.Value.Cost);
    }

    /// <summary>An easier and a harder way beside what is there, as a coach gives them.</summary>
    private JsonObject WithTiers(JsonObject station)
    {
        var block = new JsonObject { ["name"] = "Alone", ["phase"] = "warmup", ["stations"] = new JsonArray(station.DeepClone()) };
        if (ClassReader.ReadBlock(block, moves).Plan?.Blocks[0].Stations[0] is not { } read)
        {
            return station;
        }

        var proposals = Proposals.For(new Doing(read.Main.Move, read.Main.Manner), moves);
        foreach (var proposal in new[] { proposals.Easier, proposals.Harder }.OfType<Proposal>())
        {
            var written = PlanWriter.Of(OptionEntry.Into(proposal.Of, read, moves));
            written.Remove("id");
            station["options"]!.AsArray().Add(written);
        }

        return station;
    }
}
