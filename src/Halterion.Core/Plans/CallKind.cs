namespace Halterion.Core.Plans;

/// <summary>What is called. Each kind can be switched off.</summary>
public enum CallKind
{
    /// <summary>Which side, what that means, and the hand that holds the weight.</summary>
    Side,

    /// <summary>Half-way; fifteen, ten and five seconds to go.</summary>
    Time,
    CountIn,
    Count,
    Next,

    /// <summary>Weights up, down and to the shoulders, bands on and off.</summary>
    Kit,
    Round,

    /// <summary>What is left of the class, as planned.</summary>
    Minutes,
    Drink,
    Rest,

    /// <summary>The easier and the harder option.</summary>
    Tier,
    Form,
    Breath,
    End,
}
