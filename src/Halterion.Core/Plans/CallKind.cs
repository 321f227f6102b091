namespace Halterion.Core.Plans;

/// <summary>What is called. Each kind can be switched off.</summary>
public enum CallKind
{
    /// <summary>Which side, what that means, and the hand that holds the weight.</summary>
    Side,

    /// <summary>Half-way; fifteen, ten and five seconds to go.</summary>
    Time,
    /// <summary>Three, two, one.</summary>
    CountIn,
    /// <summary>A rep's number.</summary>
    Count,
    /// <summary>What comes next.</summary>
    Next,

    /// <summary>Weights up, down and to the shoulders, bands on and off.</summary>
    Kit,
    /// <summary>Which round is done.</summary>
    Round,

    /// <summary>What is left of the class, as planned.</summary>
    Minutes,
    /// <summary>Time to drink.</summary>
    Drink,
    /// <summary>How long a rest is.</summary>
    Rest,

    /// <summary>The easier and the harder option.</summary>
    Tier,
    /// <summary>A cue that is good for everybody.</summary>
    Form,
    /// <summary>When to breathe.</summary>
    Breath,
    /// <summary>The end of the class.</summary>
    End,

    /// <summary>Who of two works, and when they swap.</summary>
    Turn,

    /// <summary>The class waits for a tap.</summary>
    Gate,

    /// <summary>Stop at pain: once, before the main work.</summary>
    Care,
}
