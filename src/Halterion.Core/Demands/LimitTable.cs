using System.Collections.Immutable;
using Halterion.Core.Moves;
using Halterion.Core.Plans;

namespace Halterion.Core.Demands;

/// <summary>One line of the table: for whom, and what is not offered.</summary>
/// <param name="Strict">Only where the limit is a strict one.</param>
/// <param name="What">What is not offered, in words that go after the limit's name.</param>
public sealed record LimitRule(Limit Limit, bool Strict, string What, Func<OptionFacts, bool> Forbids);

/// <summary>
/// What is not offered to whom, as one table over facts. Thresholds are [M] our choice but the knee's gentle range of about
/// 0–50° (Escamilla, Med Sci Sports Exerc 33, 2001; from memory) and what pregnancy avoids (ACOG Committee Opinion 804, 2020;
/// from memory). It is a sieve, no clearance: a person's own carer comes first.
/// </summary>
public static class LimitTable
{
    private static LimitRule No(Limit limit, string what, Func<OptionFacts, bool> forbids) => new(limit, false, what, forbids);

    private static LimitRule Strictly(Limit limit, string what, Func<OptionFacts, bool> forbids) => new(limit, true, what, forbids);

    public static ImmutableArray<LimitRule> Rules { get; } =
    [
        No(Limit.Knee, "a hop or jump", f => f.Flight),
        No(Limit.Knee, "a standing knee bend over 100°", f => f.StandingKnee > 100),
        No(Limit.Knee, "knees on the floor without a pad", f => f.KneesOnFloor && !f.Padded),
        Strictly(Limit.Knee, "a standing knee bend over 60°", f => f.StandingKnee > 60),
        Strictly(Limit.Knee, "a forward or walking lunge", f => f.ForwardLunge),
        Strictly(Limit.Knee, "knee demand over 2.5", f => f.Demand.Knee > 2.5),
        Strictly(Limit.Knee, "kneeling", f => f.KneesOnFloor),

        No(Limit.LowerBack, "a hop or jump", f => f.Flight),
        No(Limit.LowerBack, "a trunk lean over 60° with more than 5 kg", f => f.StandingLean > 60 && f.Kilograms > 5),
        No(Limit.LowerBack, "a loaded twist", f => f.LoadedTwist),
        Strictly(Limit.LowerBack, "a trunk lean over 45°", f => f.StandingLean > 45),
        Strictly(Limit.LowerBack, "back demand over 2", f => f.Demand.Back > 2),
        Strictly(Limit.LowerBack, "more than 8 kg but at the chest or the sides", f => f.Kilograms > 8 && !f.GobletOrSides),

        No(Limit.Balance, "a one-leg stance without a hand hold", f => f.OneLeg && !f.HandHold),
        No(Limit.Balance, "a raised rear foot without a hand hold", f => f.RearRaised && !f.HandHold),
        No(Limit.Balance, "walking backward without a hand hold", f => f.WalksBackward && !f.HandHold),
        No(Limit.Balance, "a hop or jump", f => f.Flight),
        Strictly(Limit.Balance, "a split stance without a hand hold", f => f.SplitStance && !f.HandHold),
        Strictly(Limit.Balance, "steps to the side or back without a hand hold", f => f.StepsAsideOrBack && !f.HandHold),

        No(Limit.Pregnancy, "a hop or jump", f => f.Flight),
        No(Limit.Pregnancy, "lying on the back as work", f => f.OnTheBack),
        No(Limit.Pregnancy, "lying on the front", f => f.OnTheFront),
        No(Limit.Pregnancy, "a load on the hips", f => f.LoadOnHips),
        No(Limit.Pregnancy, "balance demand over 3 without a hand hold", f => f.Demand.Balance > 3 && !f.HandHold),
        No(Limit.Pregnancy, "a load of 20 kg and more", f => f.Kilograms >= 20),
        Strictly(Limit.Pregnancy, "more than 10 kg", f => f.Kilograms > 10),
        Strictly(Limit.Pregnancy, "a deep wide stance", f => f.DeepWide),

        No(Limit.Ankle, "a hop or jump", f => f.Flight),
        No(Limit.Ankle, "a heel raise on one leg", f => f.OneLegHeelRaise),
        No(Limit.Ankle, "a shin lean over 30°", f => f.ShinLean > 30),
        Strictly(Limit.Ankle, "heel raises", f => f.HeelRaise),
        Strictly(Limit.Ankle, "a shin lean over 15°", f => f.ShinLean > 15),

        No(Limit.Wrist, "weight on the hands with bent wrists", f => f.OnBentWrists),
        No(Limit.Wrist, "a front rack", f => f.FrontRack),
        Strictly(Limit.Wrist, "more than 8 kg in a hand", f => f.HandKilograms > 8),

        No(Limit.Hip, "a bend of the hip over 110°", f => f.HipBend > 110),
        No(Limit.Hip, "a deep wide stance", f => f.DeepWide),
        No(Limit.Hip, "deep to one side with the other leg long", f => f.Cossack),
        Strictly(Limit.Hip, "a bend of the hip over 90°", f => f.HipBend > 90),

        No(Limit.Neck, "a load on the back", f => f.LoadOnBack),
        No(Limit.Neck, "a load overhead", f => f.LoadOverhead),
        No(Limit.Neck, "the head off the floor", f => f.HeadOffTheFloor),
        Strictly(Limit.Neck, "weights above the elbow", f => f.LoadAboveElbow),

        No(Limit.Shoulder, "a load overhead", f => f.LoadOverhead),
        No(Limit.Shoulder, "a load on the back", f => f.LoadOnBack),
        No(Limit.Shoulder, "planks on the hands", f => f.PlankOnHands),
        Strictly(Limit.Shoulder, "arms held forward or out with a weight", f => f.LoadHeldOut),

        No(Limit.PelvicFloor, "a hop or jump", f => f.Flight),
        No(Limit.PelvicFloor, "a load of 16 kg and more", f => f.Kilograms >= 16),
        No(Limit.PelvicFloor, "planks", f => f.Plank),
        Strictly(Limit.PelvicFloor, "more than 8 kg", f => f.Kilograms > 8),
        Strictly(Limit.PelvicFloor, "a deep squat under load", f => f.Kilograms > 0 && f.StandingKnee >= 100),
    ];

    /// <summary>Why a move done in a manner is not offered to a limit; null where it may be. What the move says of itself comes first.</summary>
    /// <param name="lyingIsWork">Lying on the back is no work in a cool-down; left out: a stretch is none.</param>
    public static string? WhyNot(Move move, Manner manner, MoveLibrary moves, Limit limit, bool strict, bool? lyingIsWork = null)
    {
        if (move.UnkindTo.Contains(limit))
        {
            return $"{Named(limit)}: what the move says of itself";
        }

        // Of a move that nothing is known of nothing is promised.
        if (OptionFacts.Of(move, manner, moves) is not { } facts)
        {
            return $"{Named(limit)}: nothing is known of this move";
        }

        facts = lyingIsWork ?? move.Family != Family.Stretch ? facts : facts with { OnTheBack = false };
        var rule = Rules.FirstOrDefault(r => r.Limit == limit && (strict || !r.Strict) && r.Forbids(facts));
        return rule is null ? null : $"{Named(limit)}: {rule.What}";
    }

    public static string Named(Limit limit) => limit switch
    {
        Limit.LowerBack => "lower back",
        Limit.PelvicFloor => "pelvic floor",
        _ => limit.ToString().ToLowerInvariant(),
    };
}
