using System.Collections.Immutable;
using Halterion.Core.Body;
using Halterion.Core.Demands;
using Halterion.Core.Moves;
using Halterion.Core.Plans;

namespace Halterion.Core.Sheets;

/// <summary>The figure of an option of a class.</summary>
/// <param name="Part">Drawn as it is done in this part of the dose, from 1; null: as a whole.</param>
/// <param name="Side">The side that works in it; both: as the library draws it.</param>
public sealed record OptionPicture(PlaceId Station, PlaceId Option, Tier Tier, Figure Figure, int? Part = null, Side Side = Side.Both);

/// <summary>The figures of a class: those of every station's options that have one, in order.</summary>
public static class ClassFigures
{
    /// <summary>A small picture of every option of a class, by its id.</summary>
    public static ImmutableArray<OptionPicture> Of(ClassPlan plan) =>
    [
        .. from block in plan.Blocks
           from station in block.Stations
           from option in station.Options
           let figure = OptionFigure.Of(plan.Moves.Find(option.Move)!, option.Manner, plan.Moves, felt: false, side: station.OnlySide)
           where figure is not null
           select new OptionPicture(station.Id, option.Id, option.Tier, figure),
    ];

    /// <summary>
    /// The same and all that a class under way shows besides: each part that is done otherwise, the left side, what is done in rests and
    /// by those who wait.
    /// </summary>
    public static ImmutableArray<OptionPicture> UnderWay(ClassPlan plan)
    {
        var found = ImmutableArray.CreateBuilder<OptionPicture>();
        void Draw(Station station, Option option, Doing doing, int? part, Side side)
        {
            if (plan.Moves.Find(doing.Move) is { } move
                && OptionFigure.Of(move, doing.Manner, plan.Moves, felt: false, side: side) is { } figure)
            {
                found.Add(new OptionPicture(station.Id, option.Id, option.Tier, figure, part, side));
            }
        }

        void DrawBoth(Station station, Option option, Doing doing, int? part)
        {
            Draw(station, option, doing, part, Side.Both);
            if (plan.Moves.Find(doing.Move) is { Sided: not Sided.TwoSided })
            {
                Draw(station, option, doing, part, Side.Left);
            }
        }

        foreach (var station in plan.Blocks.SelectMany(b => b.Stations))
        {
            foreach (var option in station.Options)
            {
                var whole = new Doing(option.Move, option.Manner);
                DrawBoth(station, option, whole, null);
                for (var part = 0; part < station.Dose.Length; part++)
                {
                    if (station.Dose[part].Kind.IsWork && option.In(station, part) is var doing && doing != whole)
                    {
                        DrawBoth(station, option, doing, part + 1);
                    }
                }
            }
        }

        foreach (var (station, option) in plan.Blocks.SelectMany(b => b.Stations, (b, s) => (s, s.Waiting.AddRange(b.Recovery)))
            .SelectMany(x => x.Item2, (x, option) => (x.s, option)).DistinctBy(x => x.option.Id))
        {
            Draw(station, option, new Doing(option.Move, option.Manner), null, Side.Both);
        }

        return found.ToImmutable();
    }
}
