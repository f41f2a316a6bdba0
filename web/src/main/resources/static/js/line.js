// The one line of a browser to Under Baton: a WebSocket that all its pages share. As a shared worker this file is the line
// itself; where a browser has no shared workers each page makes a Line of its own from it.
export class Line {
  /** @param {(page: string, message: object) => void} tell hands a message to a page, or to all with '*' */
  constructor(address, tell) {
    this.address = address;
    this.tell = tell;
    this.pages = new Map();
    this.heard = 0;
    this.there = null; // nobody knows yet
    this.early = []; // orders given before it was known
    this.behind = []; // by how much our clock was behind that of Under Baton when its last beats came, ms
    this.clock = 0;
    this.wait = 250;
    this.connect();
    setInterval(() => this.look(), 200);
    setInterval(() => this.send({ page: 'still here', show: 0 }), 15000);
  }

  connect() {
    this.heard = Date.now();
    const socket = new WebSocket(this.address);
    this.socket = socket;
    socket.onopen = () => {
      this.wait = 250;
      this.heard = Date.now();
      this.pages.forEach((said) => this.send(said));
      this.say(true);
    };
    socket.onmessage = (e) => {
      if (socket !== this.socket) return;
      this.heard = Date.now();
      this.say(true);
      const message = JSON.parse(e.data);
      if (message.beat) {
        this.tick(message.beat);
        return;
      }
      this.tell(message.order ? this.owner(message.order) : '*', message);
    };
    socket.onclose = () => {
      if (socket === this.socket) this.lost();
    };
  }

  // A beat has been under way for a while, one longer than the other: the one that came fastest tells most.
  tick(beat) {
    this.behind = [...this.behind.slice(-29), beat - Date.now()];
    const clock = Math.max(...this.behind);
    if (clock === this.clock) return;
    this.clock = clock;
    this.tell('*', { clock });
  }

  // The number of an order begins with the number of the page that gave it.
  owner(order) {
    return String(Math.floor(order / 100000));
  }

  lost() {
    this.socket = null;
    this.say(false);
    setTimeout(() => {
      if (!this.socket) this.connect();
    }, this.wait);
    this.wait = Math.min(2000, this.wait * 2);
  }

  // Under Baton says something every 0.4 s; silence for longer is no silence of a show.
  look() {
    if (!this.socket || Date.now() - this.heard < 900) return;
    this.say(false);
    if (Date.now() - this.heard > 2500) {
      const old = this.socket;
      this.lost();
      old.close();
    }
  }

  say(there) {
    if (this.there === there) return;
    this.there = there;
    this.tell('*', { line: there });
    this.early.splice(0).forEach(({ page, said, at }) => this.give(page, said, Date.now() - at < 500));
  }

  give(page, said, inTime = true) {
    if (!inTime || !this.there || !this.send(said)) this.tell(page, { order: said.order, unsent: true });
  }

  send(said) {
    if (this.socket?.readyState === WebSocket.OPEN) {
      this.socket.send(JSON.stringify(said));
      return true;
    }
    return false;
  }

  take(page, said) {
    if (said.order) {
      if (this.there === null) this.early.push({ page, said, at: Date.now() });
      else this.give(page, said);
      return;
    }
    if (said.topics?.length) this.pages.set(page, said);
    else this.pages.delete(page);
    this.send(said);
    if (this.there !== null) this.tell(page, { line: this.there });
    this.tell(page, { clock: this.clock });
  }
}

if ('SharedWorkerGlobalScope' in self) {
  const ports = new Map();
  const line = new Line(
    `${self.location.protocol === 'https:' ? 'wss' : 'ws'}://${self.location.host}/live`,
    (page, message) => {
      if (page === '*') ports.forEach((port) => port.postMessage(message));
      else ports.get(page)?.postMessage(message);
    },
  );
  let count = 0;
  /** @type {any} */ (self).onconnect = (e) => {
    const port = e.ports[0];
    const page = String(++count);
    ports.set(page, port);
    port.onmessage = ({ data }) => {
      if (data.gone) {
        ports.delete(page);
        line.take(page, { page, show: 0 });
        return;
      }
      ports.set(page, port);
      line.take(page, data.order ? { ...data, order: Number(page) * 100000 + data.order } : { ...data, page });
    };
    port.postMessage({ page });
  };
}
