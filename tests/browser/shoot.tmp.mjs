import { chromium } from 'playwright-core'
const base='http://localhost:5080'
const b=await chromium.launch({executablePath:'/usr/bin/chromium'})
const names=process.argv.slice(2)
const list=await (await fetch(base+'/api/classes?dates=true')).json()
const at=(t)=>{const c=list.classes.find(c=>c.title===t); return `${base}/classes/${c.id}${c.next[0]?`/on/${c.next[0].id}`:''}`}
const people=await (await fetch(base+'/api/people')).json()
const shots={
 classes:['/',[1280,800]], classesPhone:['/',[390,844]],
 build:[at('Full moon circuit')+'/build',[1280,900]],
 rooms:['/rooms',[1280,900]], settings:['/settings',[1280,900]],
 person:['/people/'+people.find(p=>p.name.startsWith('Elin')).id,[1280,1100]],
 people:['/people',[1280,500]],
 room:[at('Six around the loft')+'/room',[1280,1000]],
 floor:[at('Six around the loft')+'/room?view=floor',[1280,1200]],
 ready:[at('Full moon circuit')+'/ready',[1280,1000]],
 cards:[at('Full moon circuit')+'/cards',[1280,1000]],
 wall:['/wall/'+at('Six around the loft').split('/').pop(),[1920,1080]],
 move:['/moves/single-leg-deadlift',[1280,900]], moves:['/moves',[1280,800]],
 picker:[at('Full moon circuit')+'/build',[1280,900]],
 empty:['/classes/new',[1280,800]],
}
for(const n of names){
 const [p,[w,h]]=shots[n]
 const page=await b.newPage({viewport:{width:w,height:h}})
 const errs=[]; page.on('pageerror',e=>errs.push(e.message))
 await page.goto(p.startsWith('http')?p:base+p)
 await page.waitForLoadState('networkidle'); await page.waitForTimeout(1500)
 if(n==='room'){await page.locator('button[data-at="6,6"]').click(); await page.waitForTimeout(800)}
 if(n==='picker'){await page.getByRole('button',{name:/Add a station to Circuit/}).click(); await page.waitForTimeout(1500)}
 if(n==='empty'){await page.getByRole('button',{name:'Create and build'}).click(); await page.waitForTimeout(2500)}
 if(n==='classes'){await page.locator('details summary').first().click().catch(()=>{}); await page.waitForTimeout(800)}
 await page.screenshot({path:`/tmp/shots/${n}.png`})
 console.log(n,errs.join(' | '))
 await page.close()
}
await b.close()
