import { chromium } from "/work/main/node_modules/playwright-core/index.mjs";
import { builtOf } from "./src/core/job";
import { placesOf } from "./src/core/square";
// usage: drive.ts JOB stage instrument lossPerM rackMm twistMm noise [gate]
const [id,stage,instr,loss,rack,twist,noise,gate]=process.argv.slice(2) as string[];
const base=process.env.BASE??"http://127.0.0.1:4288";
const {job}=await (await fetch(`${base}/api/jobs/${id}`)).json() as any;
const plan=job.plan; const {structure}=builtOf(plan) as any; const places=placesOf(structure);
const inch=plan.units!=="mm"; const names=Object.keys(places.nodes); const P:any={};
let seed=Number(process.env.SEED??1); const rnd=()=>{seed=(seed*16807)%2147483647; return seed/2147483647-0.5;};
const ys=names.map(n=>places.nodes[n].y); const H=Math.max(...ys)-Math.min(...ys)||1; const xs=names.map(n=>places.nodes[n].x); const W=Math.max(...xs)-Math.min(...xs)||1;
for(const n of names){const {x,y}=places.nodes[n]; const k=1-(+loss)/1000; P[n]={x:x*k+(+rack)*y/H+rnd()*+noise,y:y*k+rnd()*+noise,z:(+twist)*(x/W)*(y/H)+rnd()*+noise/3};}
const step=inch?25.4/32:0.5; const q=(mm:number)=>{const r=Math.round(mm/step)*step; return inch? (r/25.4).toFixed(5).replace(/0+$/,"").replace(/\.$/,"") : String(r);};
const d=(a:string,b:string)=>Math.hypot(P[a].x-P[b].x,P[a].y-P[b].y);
const b=await chromium.launch({executablePath:"/usr/bin/chromium-headless-shell"});
const p=await (await b.newContext({serviceWorkers:"block",viewport:{width:1280,height:900}})).newPage();
p.on("pageerror",(e:any)=>console.log("PAGEERROR",e.message));
await p.goto(`${base}/jobs/${id}/${stage}`,{waitUntil:"networkidle"}); await p.waitForTimeout(2500);
if(gate) { const r=p.getByRole("radio",{name:gate,exact:true}); if(await r.count()) await r.click(); }
if(process.env.NEW) { await p.getByRole("button",{name:"New round"}).click(); await p.waitForTimeout(500);}
if(instr) await p.getByLabel("Instrument in hand").selectOption({label:instr}).catch((e:any)=>console.log("no instr"));
const list=p.getByRole("list",{name:"Readings of this round"}); const items=await list.getByRole("button").allInnerTexts();
const todo=items.map(t=>t.split("\n")[0]!.trim());
for(const name of todo){
  let v:string|null=null; let m;
  if((m=/^(\w+) to (\w+)$/.exec(name))&&P[m[1]!]&&P[m[2]!]) v=q(d(m[1]!,m[2]!));
  else if((m=/^([A-D])([A-D])$/.exec(name))) v=q(d(m[1]!,m[2]!));
  else if((m=/^height (\w+)/.exec(name))) v=(P[m[1]!]? P[m[1]!].z/(inch?25.4:1):0).toFixed(inch?3:1);
  else if(/^(straightness|gap|flush|level|edge)/.test(name)) v="0";
  if(v===null){console.log("skip",name);continue;}
  const keep=p.getByRole("button",{name:`Keep ${name}`,exact:true});
  if(!(await keep.count())) { await list.getByRole("button",{name:new RegExp("^"+name)}).first().click(); }
  await p.locator("form input").first().fill(v); await keep.click({timeout:5000}).catch((e:any)=>console.log("cannot keep",name,v)); await p.waitForTimeout(150);
  const ask=p.getByRole("button",{name:/^It is so/}); if(await ask.count()) {console.log("asked",name,(await p.getByRole("alert").allInnerTexts()).join("|")); await ask.click();}
}
await p.waitForTimeout(+(process.env.WAIT??8000));
await p.evaluate(()=>{for(const d of document.querySelectorAll("details"))d.open=true;}); await p.waitForTimeout(500);
console.log(await p.locator("main").innerText());
await b.close();
