using System.Collections.Immutable;
using Halterion.Core.Plans;

namespace Halterion.Core.PlanFormat;

/// <summary>The fields of an option.</summary>
internal sealed class OptionTable : Table<Option, OptionPlace>
{
    public const int MostOptions = 9;

    public OptionTable() : base("an option", "One way to do a station.")
    {
        const string noDose = "there is no dose here to have parts or sides";
        var dosed = new Belongs<Option, OptionPlace>((_, p) => p.At == OptionsAt.Station, noDose);
        var beside = new Belongs<Option, OptionPlace>(
            (o, p) => p.At == OptionsAt.Station && o.Tier != Tier.Main,
            (_, p) => p.At == OptionsAt.Station ? "the main option always uses the station’s target and sides" : noDose);

        Add(PlaceIds.Field<Option, OptionPlace>(o => o.Id, (o, id) => o with { Id = id }, p => p.ById));

        // The tier is known before anything else is read.
        Add(new("tier", () => new OneWord<Tier>().Schema(), (_, _, o, _) => o, o => WordsOf<Tier>.Of(o.Tier)) { Required = true });
        Add("move", new MoveName(), o => o.Move, (o, v) => o with { Move = v }, Required);
        Add("sides", new OneWord<SideRule>(), o => o.Sides, (o, v) => o with { Sides = v }, only: beside);
        Add("chunk", new WholeNumber(1, 1000), o => o.Chunk, (o, v) => o with { Chunk = v }, only: beside);
        AddAll(PlanLanguage.Manner, o => o.Manner, (o, v) => o with { Manner = v },
            name => MannerTable.IsScale(name) ? MannerTable.Scaled<Option, OptionPlace>(beside.Takes) : null);
        Add(new(
            "parts", () => new() { ["type"] = "object", ["additionalProperties"] = Schemas.Of("PlanManner") },
            (context, fields, o, _) => o with { Parts = context.PartManners(fields, o.Tier == Tier.Main) },
            o => Context.PartManners(o.Parts))
        { Only = dosed });
        Add("note", new PlainText(0, 4000), o => o.Note, (o, v) => o with { Note = v });
    }

    /// <summary>A field that holds options.</summary>
    public static Field<TOwner, TPlace> Listed<TOwner, TPlace>(
        string name, OptionsAt at, Func<TOwner, ImmutableArray<Option>> get, Func<TOwner, ImmutableArray<Option>, TOwner> set,
        Func<TOwner, TPlace, string> byPlace) => new(
            name,
            () => Schemas.List(Schemas.Of("PlanOption"), 1, MostOptions),
            (context, fields, owner, place) => at == OptionsAt.Station || fields.Has(name)
                ? set(owner, context.Options(fields, name, at, byPlace(owner, place)))
                : owner,
            owner => get(owner) is { IsEmpty: false } options ? new ListOfThings(options.Select(PlanLanguage.Option.Write)).Json : null);
}

/// <summary>The fields of a manner: how a move is done.</summary>
internal sealed class MannerTable : Table<Manner>
{
    public MannerTable() : base("a manner", null)
    {
        Add("depth", new OneWord<Depth>(), m => m.Depth, (m, v) => m with { Depth = v });
        Add("support", new OneWord<Support>(), m => m.Support, (m, v) => m with { Support = v });
        Add("base", new OneWord<Footing>(), m => m.Base, (m, v) => m with { Base = v });
        Add("toes", new OneWord<Toes>(), m => m.Toes, (m, v) => m with { Toes = v });
        Add("step", new OneWord<StepLength>(), m => m.Step, (m, v) => m with { Step = v });
        Add("trunk", new OneWord<TrunkLean>(), m => m.Trunk, (m, v) => m with { Trunk = v });
        Add("arms", new OneWord<ArmPlace>(), m => m.Arms, (m, v) => m with { Arms = v });
        Add("surface", new OneWord<Surface>(), m => m.Surface, (m, v) => m with { Surface = v });
        Add("heightCm", new WholeNumber(0, 120), m => m.HeightCm, (m, v) => m with { HeightCm = v });
        Add("impact", new OneWord<Impact>(), m => m.Impact, (m, v) => m with { Impact = v });
        Add("band", new OneWord<BandStrength>(), m => m.Band, (m, v) => m with { Band = v });
        Add("grip", new OneWord<Grip>(), m => m.Grip, (m, v) => m with { Grip = v });
        Add("tempo", new TempoWords(moves: true), m => m.Tempo, (m, v) => m with { Tempo = v });
        Add("load", new LoadOrNone(), m => m.Load, (m, v) => m with { Load = v });
        Add("scale", new DecimalNumber(0.1m, 2), m => m.Scale, (m, v) => m with { Scale = v });
    }

    public static bool IsScale(string name) => name == "scale";

    public static Belongs<TOwner, TPlace> Scaled<TOwner, TPlace>(Func<TOwner, TPlace, bool> takes) =>
        new(takes, "only easier, harder and alternative options can have a share of the target");
}

/// <summary>Where an option differs in one part of the dose.</summary>
internal sealed class PartMannerTable : Table<PartManner, PartOf>
{
    public PartMannerTable() : base("a part of an option", "Where an option differs in one part.")
    {
        Add("move", new MoveName(), p => p.Move, (p, v) => p with { Move = v });
        AddAll(PlanLanguage.Manner, p => p.Manner, (p, v) => p with { Manner = v },
            name => MannerTable.IsScale(name) ? MannerTable.Scaled<PartManner, PartOf>((_, p) => p == PartOf.OtherOption) : null);
    }
}

/// <summary>What is held.</summary>
internal sealed class LoadTable : Table<Load>
{
    public LoadTable() : base("a load", null)
    {
        Add("implement", new OneWord<Implement>(), l => l.Implement, (l, v) => l with { Implement = v }, Required);
        Add("count", new WholeNumber(1, 2), l => l.Count, (l, v) => l with { Count = v });
        Add("kg", new DecimalNumber(0.25m, 300), l => l.Kg?.Value, (l, v) => l with { Kg = new Kilograms(v) });
        Add("position", new OneWord<LoadPosition>(), l => l.Position, (l, v) => l with { Position = v });
        Add("side", new OneWord<LoadSide>(), l => l.Side, (l, v) => l with { Side = v });
    }
}

/// <summary>Something said in the time before some work.</summary>
internal sealed class SayingTable : Table<Saying>
{
    public SayingTable() : base("what is said", "Something said in the time before some work; it adds none.")
    {
        Add("text", new PlainText(1, 400), s => s.Text, (s, v) => s with { Text = v }, Required);
        Add("seconds", new LengthInSeconds(1, 600), s => s.Seconds, (s, v) => s with { Seconds = v }, Required);
    }
}

/// <summary>A station shown in a walk-through.</summary>
internal sealed class ShowingTable : Table<Showing>
{
    public ShowingTable() : base("a walk-through", "A station shown in a walk-through.")
    {
        Add("station", new PlainText(1, 120), s => s.Station.Value, (s, v) => s with { Station = new PlaceId(v) }, Required);
        Add("seconds", new LengthInSeconds(1, 600), s => s.Seconds, (s, v) => s with { Seconds = v }, Required);
        Add("view", new OneWord<Viewpoint>(), s => s.View, (s, v) => s with { View = v });
        Add("first", new OneWord<Tier>(), s => Unless(Tier.Main, s.First), (s, v) => s with { First = v });
    }
}
