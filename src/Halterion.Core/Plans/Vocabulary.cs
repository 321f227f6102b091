namespace Halterion.Core.Plans;

// The words of an option (plan-language.md, "An option"), once. In a file each stands in lower camel case, as
// WordsOf<T> says; reader, schema, sentences and figures follow from here.

public enum Depth
{
    Small,
    Quarter,
    Half,
    Parallel,
    Full,
    Knee,
    MidShin,
    Floor,
}

public enum Support
{
    None,
    Hand,
    TwoHands,
    HandOnThigh,
    Wall,
    Chair,
    Doorway,
    Knees,
    Forearms,
    Helper,
}

/// <summary>How the feet stand.</summary>
public enum Footing
{
    Wide,
    Hip,
    Narrow,
    Staggered,
    Split,
    FrontRaised,
    RearRaised,
    Single,
}

public enum Toes
{
    Ahead,
    Out,
}

public enum StepLength
{
    Short,
    Normal,
    Long,
}

public enum TrunkLean
{
    Upright,
    Leaning,
}

public enum ArmPlace
{
    Free,
    Forward,
    Sides,
    Hips,
    Crossed,
    Overhead,
}

public enum Surface
{
    Floor,
    Mat,
    Pad,
    Step,
    Box,
    Chair,
    Bench,
    Wall,
    Soft,
}

public enum Impact
{
    None,
    Hop,
    Jump,
}

public enum BandStrength
{
    None,
    Light,
    Medium,
    Strong,
}

public enum Grip
{
    Over,
    Mixed,
    Neutral,
}

public enum Implement
{
    Dumbbell,
    Kettlebell,
    Barbell,
    Plate,
    Ball,
    Bottle,
    Machine,
}

/// <summary>Where a weight is held.</summary>
public enum LoadPosition
{
    Goblet,
    Sides,
    Shoulders,
    Rack,
    FrontRack,
    Back,
    Overhead,
    Hips,
    Low,
}

/// <summary>In which hand, seen from the working leg.</summary>
public enum LoadSide
{
    Same,
    Opposite,
    Both,
}
