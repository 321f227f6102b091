namespace Halterion.Core.Planning.Drafts;

/// <summary>How shapes are called.</summary>
public static class DraftShapes
{
    /// <summary>As it is said of a class, such as "Stations on the bell".</summary>
    public static string Words(DraftShape shape) => shape switch
    {
        DraftShape.Any => "Any shape",
        DraftShape.Rotation => "Stations on the bell",
        DraftShape.Circuit => "Circuit",
        DraftShape.Sets => "Straight sets",
        DraftShape.Supersets => "Pairs",
        DraftShape.DropSets => "Drop sets",
        DraftShape.OneSideARound => "One side a round",
        DraftShape.OnTheMinute => "On the minute",
    };
}
