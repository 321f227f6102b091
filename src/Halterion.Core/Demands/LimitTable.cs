using System.Collections.Immutable;
using Halterion.Core.Moves;
using Halterion.Core.PlanFormat;
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

    /// <summary>Which limit forbids what (room.md).</summary>
    public static ImmutableArray<LimitRule> Rules { get; } =
    [
        No(Limit.Knee, "a hop or jump", f => f.Flight),
        No(Limit.Knee, "a standing knee bend past 100°", f => f.StandingKnee > 100),
        No(Limit.Knee, "a forward or walking lunge", f => f.ForwardLunge),
        No(Limit.Knee, "knees on the floor without a pad", f => f.KneesOnFloor && !f.Padded),
        Strictly(Limit.Knee, "a standing knee bend past 60°", f => f.StandingKnee > 60),
        Strictly(Limit.Knee, "high knee demand (over 2.5 of 5)", f => f.Demand.Knee > 2.5),
        Strictly(Limit.Knee, "kneeling", f => f.KneesOnFloor),

        No(Limit.LowerBack, "a hop or jump", f => f.Flight),
        No(Limit.LowerBack, "a weight that is swung or thrown", f => f.Ballistic),
        No(Limit.LowerBack, "leaning past 55° with more than 5 kg", f => f.StandingLean > 55 && f.Kilograms > 5),
        No(Limit.LowerBack, "twisting with a weight or leaning back", f => f.Twist),
        No(Limit.LowerBack, "both legs lowered or held", f => f.BothLegs),
        Strictly(Limit.LowerBack, "leaning past 45°", f => f.StandingLean > 45),
        Strictly(Limit.LowerBack, "high back demand (over 2 of 5)", f => f.Demand.Back > 2),
        Strictly(Limit.LowerBack, "more than 8 kg, unless held at the chest or sides", f => f.Kilograms > 8 && !f.GobletOrSides),
        Strictly(Limit.LowerBack, "planks and climbers", f => f.Plank),

        No(Limit.Balance, "standing on one leg without holding on", f => f.OneLeg && !f.HandHold),
        No(Limit.Balance, "a raised rear foot without holding on", f => f.RearRaised && !f.HandHold),
        No(Limit.Balance, "walking backward without holding on", f => f.WalksBackward && !f.HandHold),
        No(Limit.Balance, "a hop or jump", f => f.Flight),
        Strictly(Limit.Balance, "a split stance without holding on", f => f.SplitStance && !f.HandHold),
        Strictly(Limit.Balance, "steps to the side or back without holding on", f => f.StepsAsideOrBack && !f.HandHold),

        No(Limit.Pregnancy, "a hop or jump", f => f.Flight),
        No(Limit.Pregnancy, "a weight that is swung or thrown", f => f.Ballistic),
        No(Limit.Pregnancy, "working while lying on the back", f => f.OnTheBack),
        No(Limit.Pregnancy, "planks on the hands, twists and leg lowers", f => f.PlankOnHands || f.Twist || f.BothLegs),
        No(Limit.Pregnancy, "lying on the front", f => f.OnTheFront),
        No(Limit.Pregnancy, "a load on the hips", f => f.LoadOnHips),
        No(Limit.Pregnancy, "high balance demand (over 3 of 5) without holding on", f => f.Demand.Balance > 3 && !f.HandHold),
        No(Limit.Pregnancy, "20 kg or more", f => f.Kilograms >= 20),
        Strictly(Limit.Pregnancy, "more than 10 kg", f => f.Kilograms > 10),
        Strictly(Limit.Pregnancy, "a deep wide stance", f => f.DeepWide),

        No(Limit.Ankle, "a hop or jump", f => f.Flight),
        No(Limit.Ankle, "a heel raise on one leg", f => f.OneLegHeelRaise),
        No(Limit.Ankle, "the knee far over the toes (shin past 30°)", f => f.ShinLean > 30),
        Strictly(Limit.Ankle, "heel raises", f => f.HeelRaise),
        Strictly(Limit.Ankle, "the knee over the toes (shin past 20°)", f => f.ShinLean > 20),
        Strictly(Limit.Ankle, "one leg without holding on", f => f.OneLeg && !f.HandHold),
        Strictly(Limit.Ankle, "hips up over straight knees", f => f.HipsUp),

        No(Limit.Wrist, "weight on the hands with bent wrists", f => f.OnBentWrists),
        No(Limit.Wrist, "a weight at the shoulders on bent wrists", f => f.Racked),
        Strictly(Limit.Wrist, "more than 8 kg in a hand", f => f.HandKilograms > 8),

        No(Limit.Hip, "a hop or jump", f => f.Flight),
        No(Limit.Hip, "a hip bend past 110°", f => f.HipBend > 110),
        No(Limit.Hip, "a deep wide stance", f => f.DeepWide),
        No(Limit.Hip, "a deep side lunge with the other leg straight", f => f.Cossack),
        Strictly(Limit.Hip, "a hip bend past 90°", f => f.HipBend > 90),

        No(Limit.Neck, "a load on the back", f => f.LoadOnBack),
        No(Limit.Neck, "a load overhead", f => f.LoadOverhead),
        No(Limit.Neck, "the head off the floor", f => f.HeadOffTheFloor),
        Strictly(Limit.Neck, "weights above the elbow", f => f.LoadAboveElbow),

        No(Limit.Shoulder, "a load overhead", f => f.LoadOverhead),
        No(Limit.Shoulder, "a load on the back", f => f.LoadOnBack),
        No(Limit.Shoulder, "planks on the hands", f => f.PlankOnHands),
        Strictly(Limit.Shoulder, "arms held forward or out with a weight", f => f.LoadHeldOut),
        Strictly(Limit.Shoulder, "side planks", f => f.SidePlank),
        Strictly(Limit.Shoulder, "a weight at the shoulders", f => f.Racked),

        No(Limit.PelvicFloor, "a hop or jump", f => f.Flight),
        No(Limit.PelvicFloor, "a weight that is swung or thrown", f => f.Ballistic),
        No(Limit.PelvicFloor, "16 kg or more", f => f.Kilograms >= 16),
        No(Limit.PelvicFloor, "planks", f => f.Plank),
        Strictly(Limit.PelvicFloor, "more than 8 kg", f => f.Kilograms > 8),
        Strictly(Limit.PelvicFloor, "a deep squat under load", f => f.Kilograms > 0 && f.StandingKnee >= 100),
        Strictly(Limit.PelvicFloor, "both legs lowered or held", f => f.BothLegs),
    ];

    /// <summary>
    /// Why a move done in a manner is not offered to a limit; null where it may be. What the move says of itself comes first.
    /// </summary>
    /// <param name="lyingIsWork">Lying on the back is no work in a cool-down; left out: a stretch is none.</param>
    public static string? WhyNot(Move move, Manner manner, MoveLibrary moves, Limit limit, bool strict, bool? lyingIsWork = null)
    {
        var lies = lyingIsWork ?? move.Family != Family.Stretch;
        foreach (var own in move.OwnLimits)
        {
            if (own.Limit == limit
                && (strict || own.When == LimitWhen.Any)
                && (lyingIsWork != false || !own.Lying)
                && !Lifts.Any(own, move, manner, moves))
            {
                return $"{Named(limit)}: {own.Why}";
            }
        }

        // An option that amounts to another move has that one's limits.
        foreach (var same in moves.FormsOf(move.Id))
        {
            if (same.Forms.FirstOrDefault(f => f.Move == move.Id && Is(f, manner)) is { } form
                && WhyNot(same, Rest(form, manner), moves, limit, strict, lyingIsWork) is { } why)
            {
                return why;
            }
        }

        // Of a move that nothing is known of nothing is promised.
        if (OptionFacts.Of(move, Counted(move, manner), moves) is not { } facts)
        {
            return $"{Named(limit)}: too little is known about this move";
        }

        facts = (lies ? facts : facts with { OnTheBack = false }).Judged;
        var rule = Rules.FirstOrDefault(r => r.Limit == limit && (strict || !r.Strict) && r.Forbids(facts));
        return rule is null ? null : $"{Named(limit)}: {rule.What}";
    }

    private static bool Is(MoveForm form, Manner manner) =>
        (form.Support is null || manner.Support is { } support && WordsOf<Support>.Of(support) == form.Support)
        && (form.Surface is null || manner.Surface is { } surface && WordsOf<Surface>.Of(surface) == form.Surface)
        && (form.Base is null || manner.Base is { } footing && WordsOf<Footing>.Of(footing) == form.Base);

    /// <summary>What a manner says beside that.</summary>
    private static Manner Rest(MoveForm form, Manner manner) => manner with
    {
        Support = form.Support is null ? manner.Support : null,
        Surface = form.Surface is null ? manner.Surface : null,
        Base = form.Base is null ? manner.Base : null,
    };

    /// <summary>Of a weight that a move always carries and nobody has written, so many kilograms count. [M]</summary>
    public const int UnwrittenKg = 8;

    /// <summary>
    /// The manner in which limits are judged: what a move always carries counts as its usual weight, at most as <see cref="UnwrittenKg"/>.
    /// </summary>
    public static Manner Counted(Move move, Manner manner) => manner.Load is not null || move.Usual is not { } usual ? manner : manner with
    {
        Load = new Load(Enum.Parse<Implement>(usual.Implement, ignoreCase: true), usual.Count,
            new Kilograms((decimal)Math.Min(usual.Kilograms, UnwrittenKg) / usual.Count), null, null),
    };

    /// <summary>What a limit is called.</summary>
    public static string Named(Limit limit) => limit switch
    {
        Limit.LowerBack => "lower back",
        Limit.PelvicFloor => "pelvic floor",
        Limit.Knee or Limit.Balance or Limit.Pregnancy or Limit.Ankle or Limit.Wrist or Limit.Hip or Limit.Neck
            or Limit.Shoulder => limit.ToString().ToLowerInvariant(),
    };
}
