import { chromium } from '@playwright/test';
const b='http://127.0.0.1:5601';
const browser=await chromium.launch({executablePath:'/usr/bin/chromium-headless-shell',args:['--no-sandbox','--disable-gpu']});
const page=await browser.newPage({viewport:{width:1280,height:800}});
const jobs=await (await fetch(b+'/api/jobs')).json();
const job=jobs[0]?.id??jobs.jobs?.[0]?.id; console.log(jobs.length, job);
const head=(await (await fetch(b+`/api/jobs/${job}`)).json()).head;
const pic=head.pictures[0].picture.id; const slot=head.slots[0].address;
const go=async(n,u,f)=>{await page.goto(b+u);await page.waitForTimeout(2500);if(f)await f();await page.screenshot({path:`/tmp/shots/${n}.png`});};
const want=process.argv.slice(2);
const all={
 jobs:['/'],bench:[`/job/${job}`],framing:[`/job/${job}/framing/${pic}`],weighing:[`/job/${job}/weighing/${pic}/${slot}`],bundle:[`/job/${job}/handing-over`],receivers:[`/job/${job}/handing-over/receivers`],html:[`/job/${job}/handing-over/pages`],live:[`/job/${job}/handing-over/live`],
 pictures:['/pictures'],destinations:['/destinations/website/'+(slot.split('/')[1])],pagechecks:['/page-checks'],folders:['/folders'],ladder:[`/job/${job}/ladder/${pic}/${slot}`],
 help:[`/job/${job}`,async()=>{await page.keyboard.press('?');await page.waitForTimeout(500)}],
 tray:[`/job/${job}`,async()=>{await page.locator('[data-cell]').nth(3).click();await page.waitForTimeout(800)}],
 wall:[`/job/${job}`,async()=>{await page.getByRole('button',{name:/^All/}).first().click();await page.waitForTimeout(1000)}],
 overlay:[`/job/${job}/framing/${pic}?slot=${slot}&over`,async()=>{await page.waitForTimeout(2500)}],
};
for(const n of want)await go(n,...all[n]);
await browser.close();
