namespace Halterion.Core.Body;

/// <summary>The moment at which a body that jumps leaves the floor, or reaches it again.</summary>
internal sealed record Touch(Posture Posture, Vec Centre)
{
    /// <summary>How much the heels are up as the toes leave the floor, degrees. [M]</summary>
    private const double Heels = 42;

    /// <summary>The thigh of a leg that has pushed off, from upright, degrees; in a split stance legs reach no further. [M]</summary>
    private const double Thigh = 14;
    private const double SplitThigh = 36;

    public static Touch Of(KeyPose ground, KeyPose apex, Carried? load)
    {
        var splits = Math.Abs(ground.Split) > 0.2;
        var posture = PoseSolver.Solve(
            ground with
            {
                Depth = splits ? SplitThigh : Thigh,
                Knee = null,
                Shin = splits ? -4 : null,
                Lean = splits ? 3 : Math.Clamp(apex.Lean ?? 6, 2, 12),
                Heels = splits ? ground.Heels : Math.Max(ground.Heels, Heels),
                Arms = apex.Arms,
                RightArm = apex.RightArm,
                LeftArm = apex.LeftArm,
                Air = 0,

                // A leg in the air is already where it is in flight.
                Left = ground.Left is { Free: true } && apex.Left is { Free: true } ? apex.Left : ground.Left,
                Right = ground.Right is { Free: true } && apex.Right is { Free: true } ? apex.Right : ground.Right,
            },
            load);
        return new Touch(posture, Carried.Centre(Skeleton.Of(posture), load));
    }
}
