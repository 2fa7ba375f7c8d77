import { chromium } from "@playwright/test";
const [,, url, cam, out, size] = process.argv;
const [w,h]=(size??"390x844").split("x").map(Number);
const b = await chromium.launch({ executablePath: "/usr/bin/chromium", args: ["--no-sandbox","--disable-gpu","--disable-quic","--use-fake-device-for-media-stream",`--use-file-for-fake-video-capture=${cam}`] });
const c = await b.newContext({ viewport: { width: w, height: h }, permissions: ["camera"] });
const p = await c.newPage();
p.on("console", m => m.type()==="error" && console.log(m.text())); p.on("pageerror", e => console.log("ERR", e.message));
await p.goto(url); await p.getByRole("button",{name:"Pictures"}).click(); await p.waitForTimeout(1200);
await p.screenshot({path: out+"1.png"});
await p.getByRole("button",{name:"Take them with the camera"}).click(); await p.waitForTimeout(1200);
if (await p.getByLabel("Place, in your words").count()) {
await p.screenshot({path: out+"2.png"});
await p.getByLabel("Place, in your words").fill("on the shelf by the door, two books under it");
await p.getByLabel(/^Lens above/).fill("104"); await p.getByLabel(/^Lens to/).fill("320");
await p.getByRole("button",{name:"Keep and go on"}).click(); }
await p.waitForTimeout(1500);
await p.evaluate(() => window.dispatchEvent(Object.assign(new Event("devicemotion"), { accelerationIncludingGravity: { x: 0.6, y: 9.7, z: 0.3 } })));
await p.waitForTimeout(300);
await p.screenshot({path: out+"3.png"});
await p.getByRole("button",{name:"3 s"}).click();
await p.getByRole("button",{name:"Start"}).click(); await p.waitForTimeout(1400);
await p.screenshot({path: out+"4.png"});
const t = Date.now(); await p.locator("[role=status]").filter({hasText: /\.$/}).waitFor();
await p.waitForTimeout(200);
await p.screenshot({path: out+"5.png"});
await b.close();
