using System.Collections.Immutable;
using System.Globalization;
using Halterion.Core.Plans;

namespace Halterion.Core.Leading.Calling;

/// <summary>The few words that an instructor may record for a device without a voice; a call says which of them stand for it.</summary>
public static class Clip
{
    /// <summary>Switch.</summary>
    public const string Switch = "switch";
    /// <summary>Rest.</summary>
    public const string Rest = "rest";
    /// <summary>Next.</summary>
    public const string Next = "next";
    /// <summary>Half-way.</summary>
    public const string HalfWay = "half-way";
    /// <summary>Ten seconds to go.</summary>
    public const string TenSeconds = "ten seconds";
    /// <summary>Five seconds to go.</summary>
    public const string FiveSeconds = "five seconds";
    /// <summary>Take a drink.</summary>
    public const string Drink = "drink";
    /// <summary>Round done.</summary>
    public const string RoundDone = "round done";
    /// <summary>The class is over.</summary>
    public const string End = "the end";

    private const string Left = "left";
    private const string Right = "right";
    private const int LastNumber = 20;

    /// <summary>All that can be recorded.</summary>
    public static ImmutableArray<string> All { get; } =
    [
        Left, Right, Switch, Rest, Next, HalfWay, TenSeconds, FiveSeconds, Drink, RoundDone, End,
        .. Enumerable.Range(1, LastNumber).Select(Number),
    ];

    /// <summary>Of a side; nothing where both sides work.</summary>
    public static ImmutableArray<string> Of(Side? side) => side switch
    {
        Side.Left => [Left],
        Side.Right => [Right],
        Side.Both or Side.Alternate or null => [],
        _ => throw new ArgumentOutOfRangeException(nameof(side), side, null),
    };

    /// <summary>Of a number; nothing where it is too large to be recorded.</summary>
    public static ImmutableArray<string> Of(int number) => number is >= 1 and <= LastNumber ? [Number(number)] : [];

    private static string Number(int n) => n.ToString(CultureInfo.InvariantCulture);
}
