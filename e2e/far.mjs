// prints a link
import { request } from "@playwright/test";
import { readFileSync } from "node:fs";
const base="http://127.0.0.1:8190";
const c = await request.newContext({ baseURL: base });
await c.post("/api/v1/session", { data: { login: "mara", password: "plumb-line-demo" } });
const d = (n) => new Date(Date.now() - n*86400000).toISOString().slice(0,10);
const brief = { name: process.argv[2] ?? "Far Away", sex:"male", birth_date:"1994-06-11", height_cm:178, dominant_hand:"right", experience:"intermediate", look:"taper", days_per_week:4, minutes_per_session:70, equipment:["dumbbell"], photo_consent:{given_on:d(40), purposes:["assessment"]}};
const client = await (await c.post("/api/v1/clients",{data:brief})).json();
const r1 = await (await c.post(`/api/v1/clients/${client.id}/rounds`,{data:{date:d(28),measured_by:"MT"}})).json();
const r2 = await (await c.post(`/api/v1/clients/${client.id}/rounds`,{data:{date:d(0),measured_by:"MT"}})).json();
if (process.argv[3]) for (const pose of ["F","SLA"]) await c.post(`/api/v1/rounds/${r1.id}/photos?pose=${pose}&mirrored=false&distance_m=3.5`,{data:readFileSync(process.argv[3].replace("POSE",pose)),headers:{"Content-Type":"application/octet-stream"}});
const l = await (await c.post(`/api/v1/clients/${client.id}/links`,{data:{days:5}})).json();
console.log(`${base}/my#${l.token}`); console.error(JSON.stringify({client:client.id, r1:r1.id, r2:r2.id}));
