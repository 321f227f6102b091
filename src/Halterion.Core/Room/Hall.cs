using System.Collections.Immutable;
using Halterion.Core.PlanFormat;

namespace Halterion.Core.Room;

/// <summary>What stands in a room, or is part of it.</summary>
public enum FixtureKind
{
    /// <summary>Kept free.</summary>
    Door,
    /// <summary>Where the wall is shown.</summary>
    Screen,
    /// <summary>Takes its own room.</summary>
    Furniture,

    /// <summary>Where a long band can be hung.</summary>
    Anchor,
    /// <summary>Nobody stands in it.</summary>
    Pillar,
}

/// <summary>A rectangle on the floor, in metres from the corner at the left of the front wall.</summary>
/// <param name="X">From the left.</param>
/// <param name="Y">From the front.</param>
public sealed record Fixture(FixtureKind Kind, decimal X, decimal Y, decimal WidthM, decimal LengthM, string? Name = null);

/// <summary>A room from above.</summary>
/// <param name="WidthM">From left to right, metres.</param>
/// <param name="LengthM">From the front wall to the back, metres.</param>
public sealed record HallFloor(decimal WidthM, decimal LengthM, ImmutableArray<Fixture> Fixtures)
{
    /// <summary>Where nobody has measured yet. [M]</summary>
    public static readonly HallFloor Usual = new(8, 12, []);

    /// <summary>The floor of a room from a request; null where it has faults.</summary>
    public static HallFloor? Read(Fields fields)
    {
        var width = fields.Decimal("widthM", 2, 100) ?? fields.Missing<decimal>("widthM", "metres, 2–100");
        var length = fields.Decimal("lengthM", 2, 100) ?? fields.Missing<decimal>("lengthM", "metres, 2–100");
        var fixtures = fields.List("fixtures", 0, 60, "a fixture", FixtureOf);
        if (width is not { } w || length is not { } l)
        {
            return null;
        }

        for (var i = 0; i < fixtures.Length; i++)
        {
            if (fixtures[i].X + fixtures[i].WidthM > w || fixtures[i].Y + fixtures[i].LengthM > l)
            {
                fields.FaultAt($"/fixtures/{i}", "This is outside the room.", $"inside {w:0.##} × {l:0.##} m");
            }
        }

        return new HallFloor(w, l, fixtures);
    }

    private static Fixture? FixtureOf(Fields fields)
    {
        var kind = fields.Choice<FixtureKind>("kind", required: true);
        var x = fields.Decimal("x", 0, 100) ?? fields.Missing<decimal>("x", "metres from the left");
        var y = fields.Decimal("y", 0, 100) ?? fields.Missing<decimal>("y", "metres from the front");
        var width = fields.Decimal("widthM", 0.05m, 100) ?? fields.Missing<decimal>("widthM", "metres");
        var length = fields.Decimal("lengthM", 0.05m, 100) ?? fields.Missing<decimal>("lengthM", "metres");
        var name = fields.Text("name", 1, 60);
        return kind is { } what && x is { } left && y is { } front && width is { } w && length is { } l
            ? new Fixture(what, left, front, w, l, name)
            : null;
    }
}

/// <summary>Where the middle of a station was put, in metres from the left and from the front.</summary>
/// <param name="Turned">Its longer side runs the other way.</param>
public sealed record FloorSpot(decimal X, decimal Y, bool Turned = false);
