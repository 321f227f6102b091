using System.Collections.Immutable;
using Halterion.Core.Body;
using Halterion.Core.Demands;
using Halterion.Core.Plans;

namespace Halterion.Core.Sheets;

/// <summary>The figure of an option of a class.</summary>
public sealed record OptionPicture(PlaceId Station, PlaceId Option, Tier Tier, Figure Figure);

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
}
