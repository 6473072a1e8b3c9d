using LivelyTern.Data.Disk;
using LivelyTern.Data;

namespace LivelyTern.Web.Tests;

/// <summary>Writers of one file go in the order they came, whoever writes on and on beside them.</summary>
public sealed class WriteTurnTests : IDisposable
{
    private readonly Host host = new();

    private string File => TernFile.ConnectionString(host.Data);

    public void Dispose() => host.Dispose();

    [Fact]
    public async Task Who_takes_turn_after_turn_lets_those_go_first_who_wait()
    {
        var taken = 0;
        using var stop = new CancellationTokenSource();
        var greedy = Task.Run(async () =>
        {
            while (!stop.IsCancellationRequested)
            {
                using var turn = await WriteTurn.TakeAsync(File, CancellationToken.None);
                taken++;
                Thread.Sleep(2);
            }
        });
        while (Volatile.Read(ref taken) == 0) await Task.Delay(1);
        var waited = new List<int>();
        for (var i = 0; i < 21; i++)
        {
            var before = Volatile.Read(ref taken);
            using var turn = await WriteTurn.TakeAsync(File, CancellationToken.None);
            waited.Add(taken - before);
        }

        await stop.CancelAsync();
        await greedy;

        // The one under way, and one that asked just before; the middle of many, for a thread may be put aside between asking and reading.
        Assert.InRange(waited.Order().ElementAt(10), 0, 2);
    }

    [Fact]
    public async Task A_save_waits_for_its_turn_and_one_that_gave_up_waiting_leaves_it_to_the_next()
    {
        Task<System.Text.Json.Nodes.JsonNode> saving;
        using (await WriteTurn.TakeAsync(File, CancellationToken.None))
        {
            saving = host.PostAsync("/api/recipes", new { name = "Meanwhile", lines = new[] { "1 egg" }, portions = 1 });
            using var tired = new CancellationTokenSource();
            var given = WriteTurn.TakeAsync(File, tired.Token);
            await tired.CancelAsync();
            await Assert.ThrowsAnyAsync<OperationCanceledException>(() => given);
            await Task.Delay(500);
            Assert.False(saving.IsCompleted);
            Assert.Empty((await host.GetAsync("/api/recipes")).AsArray()); // reading goes on
        }

        Assert.Equal("Meanwhile", (string)(await saving)["name"]!);
        Assert.Single((await host.GetAsync("/api/recipes")).AsArray());
    }
}
