using System.Collections.Immutable;
using Halterion.Core.Moves;
using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;

namespace Halterion.Core.People;

/// <summary>Reads people as data; what is wrong is noted with its place.</summary>
public static class PersonReader
{
    private const int MostLimits = 20;
    private const int MostLoads = 200;

    /// <summary>A person with an id of their own, as a review is given them.</summary>
    public static Person? Read(Fields fields, Faults faults)
    {
        var id = fields.Text("id", 1, 64, required: true);
        var person = ReadDetails(fields, faults, new PersonId(id ?? ""));
        return id is null ? null : person;
    }

    /// <summary>All that is said of a person but their id.</summary>
    public static Person? ReadDetails(Fields fields, Faults faults, PersonId id)
    {
        var name = fields.Text("name", 1, 120, required: true);
        var person = new Person(
            id,
            name?.Trim() ?? "",
            fields.Text("nick", 1, 60)?.Trim(),
            fields.Whole("statureCm", 100, 230),
            fields.Decimal("massKg", 25, 300),
            fields.Whole("birthYear", 1900, 2100),
            Level(fields),
            fields.List("limits", 0, MostLimits, "a limit", LimitOf),
            fields.Choices<Tick>("ready", WordsOf<Tick>.Names.Length),
            Loads(fields, faults),
            SetUp(fields),
            fields.Text("note", 0, 4000));
        return name is null ? null : person;
    }

    /// <summary>A usual option by family, under <c>level</c>.</summary>
    public static ImmutableSortedDictionary<string, Tier>? Level(Fields fields)
    {
        if (fields.Object("level") is not { } map)
        {
            return null;
        }

        var levels = ImmutableSortedDictionary.CreateBuilder<string, Tier>(StringComparer.Ordinal);
        foreach (var family in Person.Levelled.Select(WordsOf<Family>.Of))
        {
            if (map.Choice(family, ["easier", "main", "harder"]) is { } word)
            {
                levels[family] = WordsOf<Tier>.All[word];
            }
        }

        map.Close("a level by family: squat, lunge, hinge, bridge");
        return levels.ToImmutable();
    }

    /// <summary>Care that somebody needs.</summary>
    public static PersonLimit? LimitOf(Fields fields)
    {
        var limit = fields.Choice<Limit>("limit", required: true);
        var side = fields.Choice<BodySide>("side");
        var strict = fields.Flag("strict") ?? false;
        var note = fields.Text("note", 0, 2000);
        var until = fields.Day("until");
        return limit is { } what ? new PersonLimit(what, side, strict, note, until) : null;
    }

    private static ImmutableSortedDictionary<string, RememberedLoad>? Loads(Fields fields, Faults faults)
    {
        if (fields.Object("loads") is not { } map)
        {
            return null;
        }

        var loads = ImmutableSortedDictionary.CreateBuilder<string, RememberedLoad>(StringComparer.Ordinal);
        foreach (var name in map.Names.Take(MostLoads).ToArray())
        {
            var load = new Fields(map.Take(name)!.Value, map.PointerTo(name), faults);
            var implement = load.IsObject ? load.Choice<Implement>("implement", required: true) : null;
            var kg = load.IsObject ? load.Decimal("kg", 0.25m, 600) ?? load.Missing<decimal>("kg", "kilograms of all that is "
                + "held, 0.25–600") : null;
            load.Close("a remembered load");
            if (implement is { } held && kg is { } weight)
            {
                loads[name] = new RememberedLoad(held, weight);
            }
        }

        map.Close("the remembered loads");
        return loads.ToImmutable();
    }

    private static PersonSetUp? SetUp(Fields fields)
    {
        if (fields.Object("setUp") is not { } map)
        {
            return null;
        }

        var setUp = new PersonSetUp(
            Height("boxCm", "box"), Height("benchCm", "bench"), Height("rearFootCm", "rearFoot"), map.Choice<BandStrength>("band"));
        map.Close("a set-up");
        return setUp;

        // The short names are taken too.
        int? Height(string name, string brief) => map.Whole(map.Has(name) ? name : brief, 1, 120);
    }
}
