using System.Text.Json;
using Halterion.Core.Moves;
using Halterion.Core.Planning;
using Halterion.Core.Plans;

namespace Halterion.Core.Tests;

/// <summary>Trying repairs has an end: what was not tried is counted, and the gravest findings come first.</summary>
public class MenderTests
{
    [Fact]
    public void What_there_was_no_time_to_try_is_counted()
    {
        var file = JsonElement.Parse("""
            {"format":"halterion-class","version":1,"title":"Too much","slotMinutes":10,"blocks":[{"name":"Main","phase":"main","rounds":3,"stations":[
              {"dose":[{"kind":"time","amount":60}],"options":[{"tier":"main","move":"squat"}]},
              {"dose":[{"kind":"time","amount":60}],"options":[{"tier":"main","move":"reverse-lunge"}]},
              {"dose":[{"kind":"time","amount":60}],"options":[{"tier":"main","move":"hip-hinge"}]}]}]}
            """);
        var mender = Mender.Of(file, new Evaluator(MoveLibrary.Load(), new Preferences()))!;
        var all = mender.Offers(() => false, TestContext.Current.CancellationToken);
        Assert.Equal(0, all.Untried);
        Assert.NotEmpty(all.Offers);
        var none = mender.Offers(() => true, TestContext.Current.CancellationToken);
        Assert.Empty(none.Offers);
        Assert.True(none.Untried >= all.Offers.Length);
        Assert.All(all.Offers.Zip(mender.Offers(() => false, TestContext.Current.CancellationToken).Offers),
            pair => Assert.Equal(pair.First.Title, pair.Second.Title));
    }
}
