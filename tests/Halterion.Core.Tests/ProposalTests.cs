using Halterion.Core.Demands;
using Halterion.Core.Moves;
using Halterion.Core.Plans;
using static Halterion.Core.Tests.Classes;

namespace Halterion.Core.Tests;

/// <summary>Easier is easier, harder is harder, instead is as hard; and who is spared what.</summary>
public class ProposalTests
{
    private static OptionFacts Facts(Option o) => OptionFacts.Of(Library.Find(o.Move)!, o.Manner, Library)!;

    private static OptionFacts Facts(MoveId id) => Facts(Option.Of(Tier.Main, id));

    [Fact]
    public void What_is_proposed_keeps_to_the_numbers() => Assert.All(Library.Moves, move =>
    {
        var (easier, harder, instead) = Proposals.For(move.Id, Library);
        var here = Facts(move.Id);
        void Below(OptionFacts low, OptionFacts high)
        {
            Assert.True(low.Demand.Overall <= high.Demand.Overall - 0.3 + 1e-9, move.Id.Value);
            Assert.All(low.Demand.Dimensions.Zip(high.Demand.Dimensions), d =>
                Assert.True(d.First.Value <= d.Second.Value + 0.5 + 1e-9, $"{move.Id}: {d.First.Of}"));
            Assert.True(low.Kilograms <= high.Kilograms, move.Id.Value);
        }

        if (easier is not null)
        {
            Below(Facts(easier.Of), here);
            Assert.False(Facts(easier.Of).Flight, move.Id.Value);
            Assert.True(Proposals.Kit(easier.Of, Library) is not { } kit || kit == Proposals.Kit(Option.Of(Tier.Main, move.Id), Library), move.Id.Value);
        }

        if (harder is not null)
        {
            Below(here, Facts(harder.Of));
        }

        if (instead is not null)
        {
            var other = Library.Find(instead.Of.Move)!;
            Assert.Equal((move.Family, Proposals.Main(move)), (other.Family, Proposals.Main(other)));
            Assert.True(other.Position != move.Position || !other.Kit.SequenceEqual(move.Kit), move.Id.Value);
            Assert.All(Facts(instead.Of).Demand.Dimensions.Zip(here.Demand.Dimensions), d => Assert.InRange(Math.Abs(d.First.Value - d.Second.Value), 0, 1));
        }

        foreach (var proposal in new[] { easier, harder, instead }.OfType<Proposal>())
        {
            Assert.Null(proposal.Of.Note);
            Assert.EndsWith(".", proposal.Why, StringComparison.Ordinal);
        }
    });

    /// <summary>Nearly everything can be made easier and harder; what cannot stands at the end of what there is.</summary>
    [Fact]
    public void Few_moves_have_nowhere_to_go()
    {
        var working = Library.Moves.Where(m => m.Family is Family.Squat or Family.Lunge or Family.Hinge or Family.Bridge).ToArray();
        Assert.All(working.Where(m => Proposals.For(m.Id, Library).Harder is null), m => Assert.True(Facts(m.Id).Flight || m.Dose.Kind == "hold", m.Id.Value));
        Assert.InRange(working.Count(m => Proposals.For(m.Id, Library).Easier is null), 0, 8);
        Assert.All(working.Where(m => Facts(m.Id).Flight), m => Assert.NotNull(Proposals.For(m.Id, Library).Easier));
    }

    [Fact]
    public void What_is_near_is_like_it()
    {
        Move[] Near(string id)
        {
            var move = Library.Find(new MoveId(id))!;
            return [.. Library.Moves.OrderBy(m => Nearness.Between(move, m, Library)).Take(5)];
        }

        Assert.Equal("squat", Near("squat")[0].Id.Value);
        Assert.All(Near("squat"), m => Assert.Equal(Family.Squat, m.Family));
        Assert.All(Near("single-leg-bridge"), m => Assert.Equal(Family.Bridge, m.Family));
    }

    /// <summary>Handbook, section 6, as a table; one that must and one that must not be there for each limit.</summary>
    [Theory]
    [InlineData(Limit.Knee, "hip-hinge", "jump-squat")]
    [InlineData(Limit.Knee, "chair-squat", "squat")]
    [InlineData(Limit.LowerBack, "glute-bridge", "romanian-deadlift")]
    [InlineData(Limit.Balance, "split-squat", "single-leg-deadlift")]
    [InlineData(Limit.Pregnancy, "hip-thrust", "glute-bridge")]
    [InlineData(Limit.Ankle, "glute-bridge", "single-calf-raise")]
    [InlineData(Limit.Wrist, "plank", "push-up")]
    [InlineData(Limit.Hip, "split-squat", "cossack-squat")]
    [InlineData(Limit.Neck, "glute-bridge", "opposite-toe-touch")]
    [InlineData(Limit.Shoulder, "squat", "tall-plank")]
    [InlineData(Limit.PelvicFloor, "glute-bridge", "plank")]
    public void Who_is_spared_what(Limit limit, string kind, string not)
    {
        string? Why(string id) => LimitTable.WhyNot(Library.Find(new MoveId(id))!, new Manner(), Library, limit, strict: false);
        Assert.Null(Why(kind));
        Assert.StartsWith($"{LimitTable.Named(limit)}: ", Why(not), StringComparison.Ordinal);
    }

    [Fact]
    public void A_strict_limit_spares_more_and_a_hand_hold_gives_back()
    {
        Assert.All(Library.Moves, m => Assert.All(Enum.GetValues<Limit>(), limit => Assert.True(
            LimitTable.WhyNot(m, new Manner(), Library, limit, false) is null || LimitTable.WhyNot(m, new Manner(), Library, limit, true) is not null)));
        var single = Library.Find(new MoveId("single-leg-deadlift"))!;
        Assert.NotNull(LimitTable.WhyNot(single, new Manner(), Library, Limit.Balance, false));
        Assert.Null(LimitTable.WhyNot(single, new Manner { Support = Support.Wall }, Library, Limit.Balance, false));
        var squat = Library.Find(new MoveId("squat"))!;
        Assert.Null(LimitTable.WhyNot(squat, new Manner { Depth = Depth.Half }, Library, Limit.Knee, false));
        Assert.Equal("knee: a standing knee bend over 60°", LimitTable.WhyNot(squat, new Manner { Depth = Depth.Half }, Library, Limit.Knee, true));
        Assert.Null(LimitTable.WhyNot(Library.Find(new MoveId("knees-to-chest"))!, new Manner(), Library, Limit.Pregnancy, false, lyingIsWork: false));
    }

    [Fact]
    public void A_proposal_for_somebody_is_one_they_may_do()
    {
        var found = 0;
        foreach (var move in Library.Moves)
        {
            foreach (var limit in Enum.GetValues<Limit>())
            {
                foreach (var proposal in new[] { Proposals.For(move.Id, Library, new ProposedFor(limit, true)) }.SelectMany(p =>
                    new[] { p.Easier, p.Harder, p.Instead }).OfType<Proposal>())
                {
                    found++;
                    Assert.Null(LimitTable.WhyNot(Library.Find(proposal.Of.Move)!, proposal.Of.Manner, Library, limit, true));
                }
            }
        }

        Assert.True(found > 1000, $"{found}");
    }

    /// <summary>Fault, fix, option (handbook, section 5): what helps where a fault stays is easier, and asks less of what the fault is about.</summary>
    [Fact]
    public void A_fault_that_stays_leads_to_an_option_that_takes_it_away()
    {
        Option? For(string id, string seen)
        {
            var move = Library.Find(new MoveId(id))!;
            return FaultRemedies.Of(move, Library)[move.Faults.Select(f => f.Seen).ToList()
                .FindIndex(f => f.Contains(seen, StringComparison.OrdinalIgnoreCase))];
        }

        Assert.Equal(Support.Chair, For("split-squat", "wobbling")!.Manner.Support);
        Assert.True(For("split-squat", "knee slides")!.Manner.Depth is Depth.Quarter or Depth.Half);
        Assert.All(Library.Moves, move =>
        {
            var here = DemandModel.Of(move.Id, new Manner(), Library)!;
            var options = FaultRemedies.Of(move, Library);
            Assert.Equal(move.Faults.Length, options.Length);
            Assert.All(options.OfType<Option>(), o =>
                Assert.True(DemandModel.Of(o.Move, o.Manner, Library)!.Overall <= here.Overall - Proposals.Least, move.Id.Value));
        });
    }
}
