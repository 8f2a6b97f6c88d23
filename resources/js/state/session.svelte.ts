import { api, ask, type Resources } from '../api/client';
import { show } from './appearance';
import { language } from './language.svelte';

/** Who is signed in, what the company's records look like, and who works there. */
class Session {
    me = $state<Resources['Me'] | null>(null);
    schema = $state.raw<Resources['SchemaResource'] | null>(null);
    people = $state.raw<Resources['PersonResource'][]>([]);
    ready = $state(false);

    async begin(): Promise<void> {
        if (this.isExpected()) {
            try {
                const house = this.house();
                house.catch(() => undefined);
                await this.enter(await ask(api.GET('/api/session')), house);
            } catch {
                this.me = null;
            }
        }
        this.ready = true;
    }

    /** The page knows whether anybody has come in: who has not is not asked for. */
    isExpected(): boolean {
        return document.querySelector('meta[name="signed-in"]') !== null;
    }

    async signIn(email: string, password: string, code?: string): Promise<void> {
        await this.enter(await ask(api.POST('/api/session', { body: { email, password, code } })), null);
    }

    async signOut(): Promise<void> {
        await ask(api.DELETE('/api/session'));
        location.assign('/');
    }

    type(name: string): Resources['TypeResource'] {
        const type = this.known(name);
        if (!type) throw new Error(`There is no record type ${name}.`);
        return type;
    }

    /** Whether somebody's role trusts them with it; the server judges all the same. */
    has(duty: string): boolean {
        return this.me?.duties.includes(duty) ?? false;
    }

    /** Whether they may do something with some records of a type. */
    may(act: string, type: string): boolean {
        return this.known(type)?.may.includes(act) ?? false;
    }

    field(type: string, name: string): Resources['FieldResource'] | undefined {
        return this.type(type).fields.find((field) => field.name === name);
    }

    /** The field at the end of a dotted path, and how the path reads. */
    path(type: string, dotted: string): { field: Resources['FieldResource']; label: string } | null {
        let at = type;
        const labels: string[] = [];
        const names = dotted.split('.');
        for (const [index, name] of names.entries()) {
            const field = this.known(at)?.fields.find((candidate) => candidate.name === name);
            if (!field) return null;
            labels.push(field.label);
            if (index === names.length - 1) return { field, label: labels.join(' › ') };
            at = this.behind(field) ?? '';
        }
        return null;
    }

    /** The record type that stands behind a field: what it refers to, or the people. */
    behind(field: Resources['FieldResource']): string | null {
        return field.type === 'person' ? (this.schema?.people.name ?? null) : field.target;
    }

    private known(name: string): Resources['TypeResource'] | undefined {
        return name === this.schema?.people.name ? this.schema.people : this.schema?.types.find((candidate) => candidate.name === name);
    }

    private house() {
        return Promise.all([ask(api.GET('/api/schema')), ask(api.GET('/api/people'))]);
    }

    private async enter(me: Resources['Me'], house: ReturnType<Session['house']> | null): Promise<void> {
        // Whoever reads another language than the door does gets a page with its words.
        if (me.spoken !== language.code) return location.reload();
        [this.schema, this.people] = await (house ?? this.house());
        clock.set(me.now, me.timeZone);
        show(me.preferences);
        this.me = me;
    }

    /** Record types and fields may have changed. */
    async refreshSchema(): Promise<void> {
        this.schema = await ask(api.GET('/api/schema'));
    }

    /** Who manages whom and who is absent may have changed. */
    async refreshPeople(): Promise<void> {
        this.people = await ask(api.GET('/api/people'));
    }
}

/** The house clock as the screens show it: it runs on from what the server said. */
class Clock {
    zone = $state('UTC');
    now = $state(new Date());
    private ahead = 0;

    constructor() {
        setInterval(() => (this.now = new Date(Date.now() + this.ahead)), 5000);
    }

    set(now: string, zone: string): void {
        this.ahead = new Date(now).getTime() - Date.now();
        this.zone = zone;
        this.now = new Date(now);
    }
}

export const clock = new Clock();
export const session = new Session();
