using System.Collections.Concurrent;
using System.Collections.Immutable;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using Halterion.Core.Checks;
using Halterion.Core.Moves;
using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;
using Halterion.Core.Timing;

namespace Halterion.Core.Planning.Drafts;

/// <summary>
/// Puts a class together from its main moves: welcome, warm-up, main blocks of one shape, a drink and a cool-down, timed to the slot.
/// What is done in which order is chosen elsewhere.
/// </summary>
public sealed class DraftBuilder
{
    // [M] Common practice, no source: what a drafted class is made of, in seconds.
    private const int Drinking = 45;
    private const int DrinkingRest = 45;
    private const int Welcome = 30;
    private const int ShownEach = 15;
    private const int ShownEachOfShort = 10;
    private const int TalkMore = 75;
    private const int Change = 8;
    private const int Every = 60;
    private const int Step = 5;
    private const int LeastGo = 16;
    // Whole reps do not fill a time to the second: never less than was asked for.
    private const int Over = 8;
    private const int ChangeOfSides = 10;
    // Under time.drink's 20 min.
    private const int MostWithoutWater = 1080;
    private const int LongWithoutWater = 28;
    private const int ShortClass = 20;
    private const int VeryLong = 90;
    private const int UsualRounds = 7;
    private const int MostRounds = 16;
    private const int MinuteGo = 40;

    private static readonly ImmutableArray<int> Works = [40, 30, 50, 60, 20];

    private readonly DraftBrief brief;
    private readonly MoveLibrary moves;
    private readonly DraftStations stations;
    private readonly Starters starters;
    private readonly KeptBlocks kept;
    private readonly Lazy<int> keptSeconds;
    private readonly ConcurrentDictionary<(KeptPart, string), (JsonObject? Block, int Seconds)> rounded = new();
    private readonly ChangeTimes pace;

    /// <summary>A builder for a brief, out of these stations.</summary>
    public DraftBuilder(DraftBrief brief, MoveLibrary moves, Preferences preferences, DraftStations stations)
    {
        (this.brief, this.moves, this.stations) = (brief, moves, stations);
        starters = new Starters(moves, preferences);
        kept = KeptBlocks.Of(brief.Keep);
        pace = ChangeTimes.Of(preferences);
        keptSeconds = new Lazy<int>(() => kept.AllBlocks.Sum(b => Takes(b.Block)));
    }

    /// <summary>Rounds or sets, seconds or reps of a go, and the rest between rounds or sets with the most that it may become.</summary>
    private sealed record Setting(int Rounds, int Go, int Rest, int MostRest);

    /// <summary>A class of these main moves in their order; null where no timing of it fills the slot.</summary>
    public JsonObject? Build(DraftShape shape, ImmutableArray<MoveId> mains)
    {
        Family[] families = [.. mains.Select(m => moves.Find(m)!.Family).Concat(KeptFamilies()).Distinct().Order()];
        var warm = Rounded(KeptPart.WarmUp, families);
        var cool = Rounded(KeptPart.CoolDown, families);
        var each = brief.SlotMinutes < ShortClass ? ShownEachOfShort : ShownEach;
        // Where the talk is to stay as it is, what is left of the time is a rest at the end of the main work.
        var least = kept.Blocks(KeptPart.Talk).IsEmpty ? Welcome + (each * mains.Union(kept.MainMoves).Count()) : 0;
        var free = (60 * brief.SlotMinutes) - warm.Seconds - cool.Seconds - keptSeconds.Value;
        foreach (var go in Settings(shape).GroupBy(s => s.Go))
        {
            // The length grows evenly with the rounds from the second on, and with the rest: two of them tell the others.
            int? Takes(Setting setting) => Main(shape, mains, setting, setting.Rest) is { } made ? made.Sum(this.Takes) : null;
            var two = go.First() with { Rounds = 2 };
            if (Takes(two) is not { } second || Takes(two with { Rounds = 3 }) is not { } third
                || Takes(two with { Rest = two.Rest + Step }) is not { } rested)
            {
                continue;
            }

            var (longer, perRest) = (third - second, rested - second);
            foreach (var setting in go)
            {
                var takes = setting.Rounds == 1 ? Takes(setting) ?? free : second + ((setting.Rounds - 2) * longer);
                var spare = free - least - takes;
                var grows = perRest * (setting.Rounds - 1);
                var steps = spare <= TalkMore || grows <= 0 ? 0 : Math.Min(spare / grows, (setting.MostRest - setting.Rest) / Step);
                if (spare < 0 || spare - (steps * grows) > TalkMore)
                {
                    continue;
                }

                if (Main(shape, mains, setting, setting.Rest + (Step * steps)) is { } blocks
                    && Timed(least, free - blocks.Sum(this.Takes), warm.Block, blocks, cool.Block, each) is { } whole)
                {
                    return whole;
                }
            }
        }

        return null;
    }

    /// <summary>The class with a talk that fills its slot; null where that would be too short or too long.</summary>
    private JsonObject? Timed(int least, int talk, JsonObject? warm, JsonObject[] blocks, JsonObject? cool, int each)
    {
        for (var again = 0; again < 2 && talk >= least && talk <= least + TalkMore + Step; again++)
        {
            var whole = Whole(talk, warm, blocks, cool, each);
            var off = (60 * brief.SlotMinutes) - Length(whole);
            if (off is >= 0 and <= DraftRules.Spare)
            {
                return whole;
            }

            talk += off;
        }

        return null;
    }

    private IEnumerable<Family> KeptFamilies() => kept.MainMoves.Select(m => moves.Find(m)?.Family).OfType<Family>();

    /// <summary>The warm-up or the cool-down for these families, and how long it takes.</summary>
    private (JsonObject? Block, int Seconds) Rounded(KeptPart part, Family[] families) =>
        rounded.GetOrAdd((part, string.Join(' ', families)), key =>
        {
            var block = key.Item1 == KeptPart.WarmUp
                ? Filled("Warm-up", "warmup", brief.WarmUpSeconds + Over, KeptPart.WarmUp, [.. stations.WarmUp(families)])
                : Filled("Cool-down", "cooldown", brief.CoolDownSeconds + Over, KeptPart.CoolDown, [.. stations.CoolDown(families)]);
            return (block, block is null ? 0 : Takes(block));
        });

    /// <summary>Ways to time a shape, those of the aim first.</summary>
    private IEnumerable<Setting> Settings(DraftShape shape)
    {
        var strong = brief.Aim == Aim.Strength;
        var rest = strong ? 90 : brief.Aim == Aim.Endurance ? 30 : 45;
        var usual = stations.UsualGo(shape);
        var most = brief.SlotMinutes > VeryLong ? MostRounds : UsualRounds;
        IEnumerable<Setting> all = shape switch
        {
            DraftShape.Sets => Of(Rounds(2, 6), [usual, usual + 2], strong ? 120 : rest, strong ? 180 : rest + 60),
            DraftShape.Supersets => Of(Rounds(2, 6), [usual, usual + 2], strong ? 120 : rest, strong ? 180 : rest + 75),
            DraftShape.DropSets => Of(Rounds(2, 5), [usual, usual - 2], rest, 180),
            DraftShape.OnTheMinute => Of(Rounds(2, most + 1), [MinuteGo], rest, rest + 75),
            _ => Of(Rounds(Drinks ? 2 : 1, most), Works, Math.Max(rest, Drinks ? DrinkingRest : 0), rest + 90),
        };
        return all.OrderBy(s => Math.Abs(s.Rounds - 3) + (Math.Abs(s.Go - usual) / 10m)).ThenBy(s => s.Rounds);
    }

    private static IEnumerable<Setting> Of(IEnumerable<int> rounds, IEnumerable<int> goes, int rest, int mostRest) =>
        rounds.SelectMany(r => goes.Select(g => new Setting(r, g, rest, mostRest)));

    /// <summary>Over half an hour people drink, asked or not: see time.drink.</summary>
    private bool Drinks => brief.Drink || brief.SlotMinutes > LongWithoutWater;

    private static IEnumerable<int> Rounds(int from, int to) => Enumerable.Range(from, to - from + 1);

    /// <summary>The main blocks of a shape; null where a move cannot be done in it.</summary>
    private JsonObject[]? Main(DraftShape shape, ImmutableArray<MoveId> mains, Setting setting, int rest)
    {
        var made = kept.Stations(KeptPart.Main).Select(s => (JsonObject?)s.DeepClone().AsObject())
            .Concat(mains.Select(m => stations.Station(m, shape, setting.Go))).ToArray();
        if (made.Any(s => s is null))
        {
            return null;
        }

        var all = made.OfType<JsonObject>().ToArray();
        if (all.Length == 0)
        {
            return [];
        }

        JsonObject? Of(string name, IEnumerable<JsonObject> own) => Changed(shape, new JsonObject
        {
            ["name"] = name,
            ["phase"] = "main",
            ["rounds"] = setting.Rounds,
            // A leg that works on through the stations of a pass gets a break at each change: see leg.long.
            ["betweenStations"] = shape == DraftShape.OneSideARound ? ChangeOfSides : Change,
            ["stations"] = new JsonArray([.. own.Select(s => s.DeepClone())]),
        }, setting, rest);
        JsonObject?[] tried = shape switch
        {
            DraftShape.Supersets => [.. all.Chunk(2).Select((pair, i) => Of($"Pair {i + 1}", pair))],
            DraftShape.DropSets => [.. all.Select((one, i) => Of($"Drop set {i + 1}", [one]))],
            DraftShape.Sets => [.. Stretches(all).Select((some, i) => Of($"Sets {i + 1}", some))],
            _ => [Of(DraftShapes.Words(shape == DraftShape.Any ? DraftShape.Circuit : shape), all)],
        };
        if (tried.Any(b => b is null))
        {
            return null;
        }

        JsonObject[] blocks = [.. tried.OfType<JsonObject>()];
        if (!Drinks || blocks.Any(b => b["water"] is not null))
        {
            return blocks;
        }

        var drink = new JsonObject
        {
            ["name"] = "Drink",
            ["phase"] = "talk",
            ["format"] = "talk",
            ["seconds"] = Drinking,
            ["water"] = true,
        };
        return blocks.Length <= 1 ? [.. blocks, drink]
            : [.. Stretches(blocks).SelectMany((some, i) => i == 0 ? some : some.Prepend(drink.DeepClone().AsObject()))];
    }

    /// <summary>What is done in a row without water: about as long as the others, the first one shorter by the warm-up.</summary>
    private T[][] Stretches<T>(T[] all)
    {
        var work = (60 * brief.SlotMinutes) - brief.CoolDownSeconds - Welcome;
        var many = Math.Min(all.Length, Math.Max(2, (work + MostWithoutWater - 1) / MostWithoutWater));
        if (!Drinks || many < 2)
        {
            return [all];
        }

        double main = work - brief.WarmUpSeconds;
        int End(int stretch)
        {
            var share = ((work * (double)stretch / many) - brief.WarmUpSeconds) / main;
            return Math.Clamp((int)Math.Round(all.Length * share), stretch, all.Length - many + stretch);
        }

        return [.. Enumerable.Range(0, many).Select(i => all[(i == 0 ? 0 : End(i))..End(i + 1)])];
    }

    /// <summary>A block in its shape, with changes as long as they take; null where its stations do not go into one block.</summary>
    private JsonObject? Changed(DraftShape shape, JsonObject block, Setting setting, int rest)
    {
        switch (shape)
        {
            case DraftShape.Rotation:
                block["format"] = "rotation";
                block["windowSeconds"] = setting.Go;
                break;
            case DraftShape.Sets or DraftShape.DropSets:
                block["order"] = "sets";
                break;
            case DraftShape.OneSideARound:
                block["sidePass"] = "round";
                break;
            case DraftShape.OnTheMinute:
                block["startEverySeconds"] = Every;
                block.Remove("betweenStations");
                break;
        }

        if (ClassReader.ReadBlock(block, moves).Plan?.Blocks[0] is not { } read)
        {
            return null;
        }

        var sets = read.Shape == BlockShape.Sets;
        var need = (int From, int To) => ChangeOver.Between(read.Stations[From], read.Stations[To], false, moves, pace).Seconds.Value;
        if (read.Shape == BlockShape.Rotation)
        {
            block["betweenStations"] = Math.Max(Change, ChangeOver.Of(read, moves, pace).Max(n => n.Seconds.Value));
        }
        else if (read.Shape != BlockShape.OnTheClock)
        {
            var (usual, written) = ((int)block["betweenStations"]!, block["stations"]!);
            for (var i = 1; i < read.Stations.Length; i++)
            {
                // What is kept stays as it is, its change too: the block's own gives it the time.
                var kept = written[i]!["id"] is not null;
                if (kept && written[i]!["changeSeconds"] is null && need(i - 1, i) > (int)block["betweenStations"]!)
                {
                    block["betweenStations"] = need(i - 1, i);
                }
                else if (!kept && need(i - 1, i) > usual)
                {
                    written[i]!["changeSeconds"] = need(i - 1, i);
                }
            }
        }

        if (setting.Rounds > 1)
        {
            var back = sets || read.Stations.Length == 1 ? 0 : need(read.Stations.Length - 1, 0);
            block[sets ? "betweenSets" : "betweenRounds"] = Math.Max(rest, back);
            if (Drinks && !sets && shape != DraftShape.Supersets)
            {
                block["water"] = true;
            }
        }

        return block;
    }

    /// <summary>A block that fills so many seconds: each of its moves as long as the others, with the ways between them.</summary>
    private JsonObject? Filled(string name, string phase, int whole, KeptPart part, MoveId[] chosen)
    {
        JsonObject Make(MoveId move, int seconds) => stations.Gentle(part, move, seconds);
        var stay = kept.Stations(part);
        JsonObject Of(IEnumerable<JsonObject> own) => new()
        {
            ["name"] = name,
            ["phase"] = phase,
            ["leadInSeconds"] = 0,
            ["stations"] = new JsonArray([.. stay.Select(s => s.DeepClone()), .. own]),
        };
        var seconds = whole - kept.Blocks(part).Concat(stay.IsEmpty ? [] : [Of([])]).Sum(Takes);
        if (seconds < LeastGo || chosen.Length == 0)
        {
            return stay.IsEmpty ? null : Of([]);
        }

        for (var many = chosen.Length; many > 0; many--)
        {
            var own = chosen[..many];
            var block = Of(own.Select(m => Make(m, 30)));
            var read = ClassReader.ReadBlock(block, moves).Plan!.Blocks[0];
            read = read with { Stations = read.Stations[stay.Length..] };
            var changes = Enumerable.Range(1, many - 1)
                .Select(i => ChangeOver.Between(read.Stations[i - 1], read.Stations[i], false, moves, pace).Seconds.Value).ToArray();
            var each = (seconds - changes.Sum()) / many;
            if (each < LeastGo && many > 1)
            {
                continue;
            }

            var first = seconds - changes.Sum() - (each * (many - 1));
            block = Of(own.Select((m, i) => Make(m, i == 0 ? first : each)));
            for (var i = 1; i < many; i++)
            {
                block["stations"]![stay.Length + i]!["changeSeconds"] = changes[i - 1];
            }

            return block;
        }

        return null;
    }

    /// <summary>The class file, with ids that follow from the places.</summary>
    private JsonObject Whole(int talk, JsonObject? warm, JsonObject[] main, JsonObject? cool, int each)
    {
        var welcome = new JsonObject
        {
            ["name"] = "Welcome and walk-through",
            ["phase"] = "talk",
            ["format"] = "talk",
            ["seconds"] = talk,
        };
        var root = starters.ClassFields();
        foreach (var (field, value) in kept.Fields)
        {
            root[field] = value?.DeepClone();
        }

        root["format"] = "halterion-class";
        root["version"] = 1;
        root["title"] = brief.Title;
        root["slotMinutes"] = brief.SlotMinutes;
        root["aim"] = WordsOf<Aim>.Of(brief.Aim);
        if (brief.WarmUpMinutes == 0)
        {
            root["warmUp"] = "ownTime";
        }

        var talks = kept.Blocks(KeptPart.Talk);
        main = [.. main.Select(b => b.DeepClone().AsObject())];
        if (!talks.IsEmpty && talk > 0 && main.LastOrDefault(b => b["stations"] is not null) is { } last)
        {
            last["afterSeconds"] = talk;
        }

        JsonObject?[] blocks =
        [
            .. talks.IsEmpty ? [welcome] : talks, .. kept.Blocks(KeptPart.WarmUp), warm,
            .. kept.StationsFirst ? main.Concat(kept.Blocks(KeptPart.Main)) : kept.Blocks(KeptPart.Main).Concat(main),
            .. kept.Blocks(KeptPart.CoolDown), cool,
        ];
        root["blocks"] = new JsonArray([.. blocks.OfType<JsonObject>().Select(b => b.DeepClone())]);
        Named(root);
        if (!talks.IsEmpty)
        {
            return root;
        }

        var shown = new JsonArray();
        var seen = new HashSet<string>();
        foreach (var station in main.Length == 0 ? [] : root["blocks"]!.AsArray().Where(b => (string?)b!["phase"] == "main")
            .SelectMany(b => b!["stations"]!.AsArray()))
        {
            var move = (string)station!["options"]!.AsArray().First(o => (string?)o!["tier"] == "main")!["move"]!;
            if (seen.Add(move))
            {
                shown.Add(new JsonObject { ["station"] = (string)station["id"]!, ["seconds"] = each });
            }
        }

        root["blocks"]![0]!["show"] = shown;
        return root;
    }

    /// <summary>Names what is new, as what it takes the place of where there is such; what stays keeps its name.</summary>
    private void Named(JsonObject root)
    {
        var blocks = root["blocks"]!.AsArray();
        var replaced = kept.Replaced.ToList();
        for (var b = 0; b < blocks.Count; b++)
        {
            var block = blocks[b]!;
            var old = block["id"] is null ? replaced.FindIndex(r => r.Phase == (string)block["phase"]!) : -1;
            if (old >= 0 && block["stations"] is not null)
            {
                (block["id"], block["name"]) = (replaced[old].Id, replaced[old].Name);
                replaced.RemoveAt(old);
            }

            block["id"] ??= $"{kept.Prefix}{b + 1}";
            var own = blocks[b]!["stations"] as JsonArray ?? [];
            for (var s = 0; s < own.Count; s++)
            {
                own[s]!["id"] ??= $"{kept.Prefix}{b + 1}s{s + 1}";
            }
        }
    }

    private int Takes(JsonObject block) =>
        ClassReader.ReadBlock(block, moves).Plan is { } plan && Compiler.Compile(plan).Timeline is { } timeline ? timeline.Length.Value : 0;

    private int Length(JsonObject root) =>
        ClassReader.Read(Encoding.UTF8.GetBytes(root.ToJsonString()), moves).Plan is { } plan
        && Compiler.Compile(plan).Timeline is { } timeline ? timeline.Length.Value : int.MaxValue / 2;
}
