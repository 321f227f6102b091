using System.Globalization;
using Halterion.Core.People;

namespace Halterion.Core.Logbook;

/// <summary>The reasons of a suggestion, as a participant may hear them.</summary>
internal static class MovingOnWords
{
    public const string Hold = "As last time.";

    public const string LeaveOut = "It hurt twice running: leave it out, and have it seen to before you come back to it.";

    public const string NothingEasier = "It hurt last time, and nothing easier will do: go gently, and stop where it hurts.";

    public const string FirstWithout = "The first time: without a weight. Too light is right today.";

    public static string First(decimal? kg) =>
        kg is { } weight ? $"The first time: take the {Number(weight)}. Too light is right today."
            : "The first time: too light is right today.";

    public static string Leave(string instead) => $"It hurt twice running: {Lower(instead)} instead, until it has been seen to.";

    public static string AfterPain(string easier) => $"It hurt last time: {Lower(easier)} today, and stop where it hurts.";

    public static string Away(DateOnly today, DateOnly last)
    {
        var weeks = (today.DayNumber - last.DayNumber) / 7;
        return $"{weeks} weeks away";
    }

    public static string Short(PastWork last) => $"{last.Done} last time, {last.Target.Words} asked";

    /// <summary>"12 and 12 last time, 10 asked".</summary>
    public static string TwoForTwo(PastWork before, PastWork last) => before.Target.Amount == last.Target.Amount
        ? $"{before.Done} and {last.Done} the last two times, {last.Target.Words} asked"
        : $"{before.Done} of {before.Target.Words} and {last.Done} of {last.Target.Words} the last two times";

    public static string Sides(PastWork last, BodySide weaker)
    {
        var (left, right) = last.Sides!.Value;
        var side = weaker == BodySide.Left ? "left" : "right";
        return $"Left {left}, right {right} last time: {side} first, and only as many on the other.";
    }

    public static string TakeKg(string because, decimal kg, int count, Target? target = null) =>
        $"{because}: take {(count == 2 ? $"two of {Number(kg)} kg" : $"the {Number(kg)}")}"
        + (target is null ? "." : $", {target.Words} of it.");

    public static string TakeTarget(string because, Target target) => $"{because}: {target.Words} today.";

    public static string TakeOption(string because, string option, Target target) => $"{because}: {Lower(option)}, {target.Words} of it.";

    public static string Practise(string because, string practise) => $"{because}. First {practise}.";

    public static string NothingHarder(string because) => $"{because}: stay, and make it look easy.";

    /// <summary>Where a rule is from.</summary>
    public static string SourceOf(string rule) => rule switch
    {
        "two-for-two" => "The 2-for-2 rule of the NSCA; steps of 2 to 10 % after the ACSM’s position stand of 2009 (both from memory).",
        "pain" or "pain-twice" => "Common practice: pain is never trained through. It is no diagnosis.",
        _ => "Our own choice.",
    };

    private static string Number(decimal kg) => kg.ToString("0.##", CultureInfo.InvariantCulture);

    private static string Lower(string words) => words.Length > 1 && char.IsUpper(words[0]) && !char.IsUpper(words[1])
        ? char.ToLowerInvariant(words[0]) + words[1..] : words;
}
