using System.CommandLine;
using Pantomet.Application.Background;
using Pantomet.Application.Folders;
using Pantomet.Application.PageChecks;
using Pantomet.Cli;
using Pantomet.Cli.Mend;
using Pantomet.Cli.Page;
using Pantomet.Cli.Render;
using Pantomet.Cli.Site;

// The server starts itself so, to keep the imaging folder out of its own process: orders from standard input, and nothing else is loaded.
if (args is ["work"])
{
    await Pantomet.Imaging.Hosting.OrderLine.ServeAsync(Console.In, Console.Out);
    return ExitCodes.Fine;
}

// So the server has a page measured: nothing of the page, the browser or the imaging folder is in its own process.
if (args is [PageWork.Call])
{
    await WorkLines.ServeAsync<PageOrder, PageProgress>(Console.In, Console.Out, PageWork.DoAsync);
    return ExitCodes.Fine;
}

// And so it has a folder of pictures put right.
if (args is [PictureFolderWork.Call])
{
    await WorkLines.ServeAsync<PictureFolderOrder, PictureFolderProgress>(Console.In, Console.Out, PictureFolderWork.DoAsync);
    return ExitCodes.Fine;
}

// So the demo starts the places that take its files.
if (args is [StandIns.Call, var folder])
{
    await StandIns.ServeAsync(folder);
    return ExitCodes.Fine;
}

var root = new RootCommand("Pantomet: every picture in every place it must go, at the right shape, size and weight.")
{
    RenderCommand.Build(),
    SiteCommand.Build(),
    MendCommand.Build(),
    PageCommand.Build(),
    ServeCommands.Demo(),
    ServeCommands.Serve(),
    ServeCommands.OpenApi(),
};

var parsed = root.Parse(args);
if (parsed.Errors.Count > 0)
{
    // One line, whatever is wrong with the call; the rest is one --help away.
    await Console.Error.WriteLineAsync($"pantomet: {parsed.Errors[0].Message} (pantomet --help lists the calls)");
    return ExitCodes.WrongCall;
}

return await parsed.InvokeAsync();
