import { searchParams } from 'sv-router';
import type { Resources } from '../../api/client';
import { session } from '../../state/session.svelte';
import type { ConditionDraft } from '../../state/written';

export type View = Resources['ViewResource'];
type Kept = Pick<View, 'columns' | 'sort' | 'group' | 'sums' | 'layout' | 'filter' | 'search'>;

const USUAL: Kept = { columns: [], sort: [], group: null, sums: [], layout: 'table', filter: null, search: '' };
/** Stands in the address for what somebody emptied that their view fills. */
const NONE = '~';

/**
 * How a list is looked at: as the view that is chosen keeps it, with what was changed since. All of it stands in the address, so that it
 * can be gone back to, and sent to others.
 */
export class Arrangement {
    private readonly type: () => Resources['TypeResource'] | undefined;
    private readonly views: () => View[];

    constructor(type: () => Resources['TypeResource'] | undefined, views: () => View[]) {
        this.type = type;
        this.views = views;
    }

    /** As it stands in the address: the router would make numbers of “0042” and of “1e3”. */
    param(name: string): string {
        return searchParams.toURLSearchParams().get(name) ?? '';
    }

    get view(): View | undefined {
        const id = this.param('view');
        return id === '' ? undefined : this.views().find((view) => String(view.id) === id);
    }

    get mine(): boolean {
        return this.param('mine') === '1';
    }

    get page(): number {
        return Math.max(1, Number(this.param('page')) || 1);
    }

    private get base(): Kept {
        return this.view ?? USUAL;
    }

    /** What the address says of something, or the view. */
    private said(name: string, kept: string): string {
        const given = this.param(name);
        return given === '' ? kept : given === NONE ? '' : given;
    }

    private list(name: 'columns' | 'sort' | 'sums'): string[] {
        return this.said(name, this.base[name].join(',')).split(',').filter(Boolean);
    }

    get columns(): string[] {
        return this.list('columns');
    }

    get sort(): string[] {
        return this.list('sort');
    }

    get sums(): string[] {
        return this.list('sums');
    }

    get group(): string | null {
        return this.said('group', this.base.group ?? '') || null;
    }

    get layout(): 'table' | 'board' {
        return this.said('layout', this.base.layout) === 'board' && this.type()?.stage ? 'board' : 'table';
    }

    get search(): string {
        return this.said('search', this.base.search);
    }

    get filter(): ConditionDraft | null {
        const said = this.said('filter', this.base.filter ? JSON.stringify(this.base.filter) : '');
        return said ? (JSON.parse(said) as ConditionDraft) : null;
    }

    /** What rows are asked for with, besides what narrows them. */
    get query(): { search?: string; sort?: string; columns?: string } {
        return {
            search: this.search || undefined,
            sort: this.sort.join(',') || undefined,
            columns: this.columns.join(',') || undefined,
        };
    }

    /** What narrows the list in all, as the API takes it; with further conditions, such as that of a group. */
    condition(...further: ConditionDraft[]): string | undefined {
        const parts = [...further];
        if (this.filter) parts.unshift(this.filter);
        const type = this.type();
        if (this.mine && type) parts.unshift({ kind: 'is', field: type.owner, value: session.me?.handle ?? '' });
        return parts.length ? JSON.stringify({ kind: 'all', of: parts }) : undefined;
    }

    /** Whether something is otherwise than the view keeps it. */
    get isChanged(): boolean {
        return ['columns', 'sort', 'group', 'sums', 'layout', 'filter', 'search'].some((name) => this.param(name) !== '');
    }

    get isNarrow(): boolean {
        return this.search !== '' || this.filter !== null || this.mine;
    }

    /** As it would be kept. */
    get kept(): Kept {
        const { columns, sort, group, sums, layout, filter, search } = this;
        return { columns, sort, group, sums, layout, filter: filter as Kept['filter'], search };
    }

    /** What is as the view has it needs no word in the address. */
    set(name: keyof Kept, value: string): void {
        const kept = this.base[name];
        const usual = Array.isArray(kept) ? kept.join(',') : name === 'filter' ? (kept ? JSON.stringify(kept) : '') : String(kept ?? '');
        this.put(name, value === usual ? '' : value || NONE);
    }

    turnTo(page: number): void {
        this.put('page', page <= 1 ? '' : String(page), true);
    }

    choose(view: View | null, mine = false): void {
        const params = searchParams.toURLSearchParams();
        for (const name of [...params.keys()]) searchParams.delete(name);
        if (view) searchParams.set('view', String(view.id));
        if (mine) searchParams.set('mine', '1');
    }

    sortBy(name: string, also: boolean): void {
        const now = this.sort.find((one) => one.replace(/^-/, '') === name);
        const next = now === undefined ? name : now.startsWith('-') ? '' : `-${name}`;
        if (!also) return this.set('sort', next);
        const rest = this.sort.map((one) => (one === now ? next : one)).filter(Boolean);
        this.set('sort', (now === undefined ? [...rest, name] : rest).slice(-4).join(','));
    }

    private put(name: string, value: string, keepsPage = false): void {
        if (value) searchParams.set(name, value);
        else searchParams.delete(name);
        if (!keepsPage) searchParams.delete('page');
    }
}
