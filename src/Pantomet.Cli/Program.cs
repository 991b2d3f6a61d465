using Pantomet.Application.Background;
using Pantomet.Batch.Folders;
using Pantomet.Cli;
using Pantomet.Imaging;
using Pantomet.PageChecks;
using Pantomet.Platform;

// Before anything of a stranger's is read: limits of memory and time, and an end with whoever started this.
if (args is ["work"] or [PageWork.Call] or [PictureFolderWork.Call])
{
    HelperProcess.Begin();
    ImagingFault.Told = Console.Error.WriteLine;
}

// What works on pictures needs no network and starts no other program; what a stranger's file makes a library try is refused.
if (args is ["work"] or [PictureFolderWork.Call])
{
    Sandbox.TryEnter();
}

// A page check is waited for; files of jobs and folders are made meanwhile, and give way to it, to the server and to the browser.
if (args is ["work"] or [PictureFolderWork.Call])
{
    HelperProcess.GiveWay();
}

// The server starts itself so, to keep the imaging folder out of its own process: orders from standard input, and nothing else is loaded.
if (args is ["work"])
{
    await Pantomet.Imaging.Hosting.RequestLine.ServeAsync(Console.In, Console.Out);
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
if (args is [TestReceiverProcess.Call, var folder])
{
    await TestReceiverProcess.ServeAsync(folder);
    return ExitCodes.Fine;
}

// What a page holds is a stranger's as well.
if (args is ["page", ..])
{
    HelperProcess.Hold(CommandLine.MostPageBytes);
}

return await CommandLine.RunAsync(args);
