namespace Halterion.Core.Plans;

// The words of an option (plan-language.md, "An option"), once. In a file each stands in lower camel case, as
// WordsOf<T> says; reader, schema, sentences and figures follow from here.

/// <summary>How deep a move goes.</summary>
public enum Depth
{
    /// <summary>Hardly a bend.</summary>
    Small,
    /// <summary>A quarter of the way.</summary>
    Quarter,
    /// <summary>Half-way down.</summary>
    Half,
    /// <summary>Thighs level.</summary>
    Parallel,
    /// <summary>As deep as the hips go.</summary>
    Full,
    /// <summary>Hands to the knees.</summary>
    Knee,
    /// <summary>Hands to the middle of the shins.</summary>
    MidShin,
    /// <summary>Down to the floor.</summary>
    Floor,
}

/// <summary>What is held on to.</summary>
public enum Support
{
    /// <summary>Nothing.</summary>
    None,
    /// <summary>One hand on something.</summary>
    Hand,
    /// <summary>Both hands on something.</summary>
    TwoHands,
    /// <summary>A hand on the thigh.</summary>
    HandOnThigh,
    /// <summary>The wall.</summary>
    Wall,
    /// <summary>The back of a chair.</summary>
    Chair,
    /// <summary>The frame of a door.</summary>
    Doorway,
    /// <summary>On the knees.</summary>
    Knees,
    /// <summary>On the forearms.</summary>
    Forearms,
    /// <summary>Somebody's hand.</summary>
    Helper,
}

/// <summary>How the feet stand.</summary>
public enum Footing
{
    /// <summary>Wider than the shoulders.</summary>
    Wide,
    /// <summary>Under the hips.</summary>
    Hip,
    /// <summary>Together.</summary>
    Narrow,
    /// <summary>Half a foot apart, heel up behind.</summary>
    Staggered,
    /// <summary>A long step apart.</summary>
    Split,
    /// <summary>The front foot on something.</summary>
    FrontRaised,
    /// <summary>The rear foot on something.</summary>
    RearRaised,
    /// <summary>On one foot.</summary>
    Single,
}

/// <summary>Where the toes point.</summary>
public enum Toes
{
    /// <summary>Straight ahead.</summary>
    Ahead,
    /// <summary>Turned out.</summary>
    Out,
}

/// <summary>How long a step is.</summary>
public enum StepLength
{
    /// <summary>Shorter than usual.</summary>
    Short,
    /// <summary>The usual step.</summary>
    Normal,
    /// <summary>Longer than usual.</summary>
    Long,
}

/// <summary>How the trunk is held.</summary>
public enum TrunkLean
{
    /// <summary>Upright.</summary>
    Upright,
    /// <summary>Leaning forward.</summary>
    Leaning,
}

/// <summary>Where the arms are while nothing is held.</summary>
public enum ArmPlace
{
    /// <summary>As balance wants it.</summary>
    Free,
    /// <summary>Straight ahead at shoulder height.</summary>
    Forward,
    /// <summary>Hanging.</summary>
    Sides,
    /// <summary>Hands on the hips.</summary>
    Hips,
    /// <summary>Across the chest.</summary>
    Crossed,
    /// <summary>Straight up.</summary>
    Overhead,
}

/// <summary>On what it is done.</summary>
public enum Surface
{
    /// <summary>The floor.</summary>
    Floor,
    /// <summary>A mat.</summary>
    Mat,
    /// <summary>A pad.</summary>
    Pad,
    /// <summary>A low step.</summary>
    Step,
    /// <summary>A box.</summary>
    Box,
    /// <summary>A chair.</summary>
    Chair,
    /// <summary>A bench.</summary>
    Bench,
    /// <summary>A wall.</summary>
    Wall,
    /// <summary>Something that gives.</summary>
    Soft,
}

/// <summary>Whether the feet leave the floor.</summary>
public enum Impact
{
    /// <summary>A foot is always down.</summary>
    None,
    /// <summary>From one foot to the same.</summary>
    Hop,
    /// <summary>With both.</summary>
    Jump,
}

/// <summary>How strong a band is.</summary>
public enum BandStrength
{
    /// <summary>Without a band.</summary>
    None,
    /// <summary>The lightest of the set.</summary>
    Light,
    /// <summary>The middle one.</summary>
    Medium,
    /// <summary>The strongest of the set.</summary>
    Strong,
}

/// <summary>How a bar is held.</summary>
public enum Grip
{
    /// <summary>Palms back.</summary>
    Over,
    /// <summary>One palm forward, one back.</summary>
    Mixed,
    /// <summary>Palms to the body.</summary>
    Neutral,
}

/// <summary>What is held or moved.</summary>
public enum Implement
{
    /// <summary>A weight for one hand.</summary>
    Dumbbell,
    /// <summary>A weight with a handle on top.</summary>
    Kettlebell,
    /// <summary>A bar for two hands.</summary>
    Barbell,
    /// <summary>A plate of a bar.</summary>
    Plate,
    /// <summary>A ball.</summary>
    Ball,
    /// <summary>A bottle of water, where there is nothing else.</summary>
    Bottle,
    /// <summary>A machine.</summary>
    Machine,
}

/// <summary>Where a weight is held.</summary>
public enum LoadPosition
{
    /// <summary>In both hands at the chest.</summary>
    Goblet,
    /// <summary>Hanging at the sides.</summary>
    Sides,
    /// <summary>At the shoulders.</summary>
    Shoulders,
    /// <summary>At one shoulder.</summary>
    Rack,
    /// <summary>On the front of both shoulders.</summary>
    FrontRack,
    /// <summary>On the back of the shoulders.</summary>
    Back,
    /// <summary>Straight up.</summary>
    Overhead,
    /// <summary>Across the hips.</summary>
    Hips,
    /// <summary>Hanging in front.</summary>
    Low,
}

/// <summary>In which hand, seen from the working leg.</summary>
public enum LoadSide
{
    /// <summary>On the side of the leg that works.</summary>
    Same,
    /// <summary>On the other side than the leg that works.</summary>
    Opposite,
    /// <summary>In both hands.</summary>
    Both,
}
