import { chromium } from '@playwright/test';
const base='http://127.0.0.1:4890';
const browser=await chromium.launch({executablePath:'/usr/bin/chromium',args:['--no-sandbox']});
const page=await browser.newPage({viewport:{width:1280,height:800},reducedMotion:'reduce'});
const go=async(list,title,params,name,act)=>{await page.goto(`${base}/${list}`);await page.getByRole('searchbox').fill(title);await page.getByRole('link',{name:title,exact:true}).first().click();await page.waitForTimeout(1500);
 if(params){const u=new URL(page.url());await page.goto(u.origin+u.pathname+'?'+params);}
 await page.waitForTimeout(3000); if(act) await act(page); await page.screenshot({path:`/tmp/${name}.png`});};
for(const [list,title,params,name] of JSON.parse(process.argv[2])) await go(list,title,params,name);
await browser.close();
