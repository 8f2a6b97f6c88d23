<script lang="ts">
    import { Checkbox, Input } from 'flowbite-svelte';
    import { api, ask, said } from '../../api/client';
    import { crumbs } from '../../state/crumbs.svelte';
    import { session } from '../../state/session.svelte';
    import { toasts } from '../../state/toasts.svelte';
    import FieldEditor from './FieldEditor.svelte';
    import { KINDS } from './fields';
    import { say, within } from '../../state/words';
    import Tabs from '../../parts/Tabs.svelte';

    /* Record types and their fields: what there is, in which order, and what each field takes. */
    crumbs.set({ label: 'Setup', to: '/setup' }, { label: 'Records and fields' });
    const NAMES = [
        { member: 'label', says: 'One of them' },
        { member: 'plural', says: 'Several of them' },
    ] as const;
    const COLUMNS = 'grid grid-cols-[1fr_128px_64px_60px] gap-3 px-7';
    let shown = $state(session.schema?.types[0]?.name ?? '');
    let chosen = $state<string | null>(null);
    let making = $state(false);
    let given = $state({ label: '', plural: '' });
    const type = $derived(session.schema?.types.find((one) => one.name === shown) ?? session.schema?.types[0]);
    const fields = $derived(type?.fields.filter((field) => !field.system) ?? []);
    const field = $derived(fields.find((one) => one.name === chosen) ?? null);

    /* One change after the other: each is made to what the one before it left. */
    let last: Promise<unknown> = Promise.resolve();

    function run(act: () => Promise<unknown>, told = ''): Promise<boolean> {
        const done = last.then(async () => {
            try {
                await act();
                await session.refreshSchema();
                if (told) toasts.tell(told);
                return true;
            } catch (thrown) {
                toasts.complain(said(thrown));
                return false;
            }
        });
        last = done;
        return done;
    }

    function change(wanted: () => Record<string, unknown>, told = '') {
        const name = type?.name ?? '';
        void run(() => {
            const body = { version: session.type(name).version, ...wanted() };
            return ask(api.PATCH('/api/types/{type}', { params: { path: { type: name } }, body }));
        }, told);
    }

    const move = (name: string, by: number) =>
        change(() => {
            const names = fields.map((one) => one.name);
            const index = names.indexOf(name);
            names.splice(index + by, 0, ...names.splice(index, 1));
            return { fields: names };
        });

    const inList = (name: string, isIn: boolean) =>
        change(() => {
            const rest = (type?.columns ?? []).filter((column) => column !== name);
            return { columns: isIn ? [...rest, name] : rest };
        });

    const renamed = (member: 'label' | 'plural', words: string) => change(() => ({ [member]: words }), 'Saved.');

    async function addType(event: SubmitEvent) {
        event.preventDefault();
        let name = '';
        const done = await run(async () => {
            name = (await ask(api.POST('/api/types', { body: given }))).name;
        }, `${given.plural} are there now. Add what they need.`);
        if (done) [shown, chosen, making, given] = [name, null, false, { label: '', plural: '' }];
    }

    const retire = (name: string, label: string) =>
        run(
            () => ask(api.DELETE('/api/types/{type}/fields/{field}', { params: { path: { type: type?.name ?? '', field: name } } })),
            `${label} is retired. Its values are kept.`,
        ).then((done) => done && (chosen = null));

    const back = (name: string, label: string) =>
        run(
            () => ask(api.POST('/api/types/{type}/fields/{field}/back', { params: { path: { type: type?.name ?? '', field: name } } })),
            `${label} is back.`,
        );
</script>

<div class="spread grid-cols-[minmax(0,7fr)_minmax(0,5fr)]">
    <section class="leaf left">
        <header class="flex items-start gap-3">
            <div class="min-w-0 flex-1">
                <h1>Records and fields</h1>
                <p class="sub">What the company keeps, and what each record says.</p>
            </div>
            <button type="button" class="btn go" onclick={() => ((making = true), (chosen = null))}>New record type</button>
        </header>
        {#if type}
            {@const open = type}
            <Tabs
                tabs={(session.schema?.types ?? []).map((one) => ({ key: one.name, label: one.plural }))}
                chosen={open.name}
                onchoose={(name) => ((shown = name), (chosen = null), (making = false))}
                label="Records and fields"
                panel="scroll"
            >
                {#snippet children()}
                    {#key type.name}
                        <div class="flex flex-wrap items-end gap-3 px-7 py-3 text-[12px] text-ink-2">
                            {#each NAMES as { member, says } (member)}
                                <label class="grid gap-0.5"
                                    >{says}
                                    <Input
                                        class="max-w-40"
                                        value={type[member]}
                                        maxlength={40}
                                        onchange={(event) => renamed(member, event.currentTarget.value)}
                                    /></label
                                >
                            {/each}
                            <button type="button" class="btn ml-auto" onclick={() => ((chosen = ''), (making = false))}>Add a field</button>
                        </div>
                    {/key}
                    <div class="{COLUMNS} border-b border-ruled py-1 text-[12px] text-ink-3">
                        <span>Field</span><span>Holds</span><span>In lists</span><span>Order</span>
                    </div>
                    {#each fields as one, index (one.name)}
                        <div
                            class="{COLUMNS} items-center border-b border-ruled py-1.5 text-[13px]"
                            class:bg-picked={one.name === chosen}
                            data-field={one.name}
                        >
                            <button
                                type="button"
                                class="truncate text-left font-medium hover:text-iris"
                                aria-pressed={one.name === chosen}
                                onclick={() => ((chosen = one.name), (making = false))}
                                >{one.label}{#if one.required}<span class="text-madder">&nbsp;*</span>{/if}</button
                            >
                            <span class="truncate text-ink-2"
                                >{one.target ? `to ${within(session.type(one.target).plural)}` : KINDS[one.type]?.label}</span
                            >
                            <Checkbox
                                class="h-4 w-4"
                                aria-label="{one.label} in lists"
                                checked={type.columns.includes(one.name)}
                                onchange={(event) => inList(one.name, event.currentTarget.checked)}
                            />
                            <span class="flex">
                                <button
                                    type="button"
                                    class="icon"
                                    aria-label="{one.label} higher"
                                    disabled={index === 0}
                                    onclick={() => move(one.name, -1)}>↑</button
                                >
                                <button
                                    type="button"
                                    class="icon"
                                    aria-label="{one.label} lower"
                                    disabled={index === fields.length - 1}
                                    onclick={() => move(one.name, 1)}>↓</button
                                >
                            </span>
                        </div>
                    {/each}
                    {#if type.retired.length}
                        <h3 class="mt-5 mb-1 px-7 font-semibold">Retired</h3>
                        {#each type.retired as one (one.kind)}
                            <div class="flex items-center gap-3 border-b border-ruled px-7 py-1.5 text-[13px] text-ink-2">
                                <span class="flex-1">{one.label}</span>
                                <button type="button" class="btn quiet" onclick={() => back(one.kind, one.label)}>Bring it back</button>
                            </div>
                        {/each}
                    {/if}
                {/snippet}
            </Tabs>
        {:else}
            <div class="scroll">
                <div class="empty">
                    <h2>Nothing is kept yet.</h2>
                    <p>Make a record type, such as customers, and say what each of them has.</p>
                </div>
            </div>
        {/if}
    </section>
    <section class="leaf right">
        {#if making}
            <header>
                <h2 class="title text-[21px]!">A new record type</h2>
                <p class="sub">It begins with a name, an owner and notes.</p>
            </header>
            <form class="scroll grid content-start gap-3 px-7 py-4 text-[13px]" onsubmit={addType}>
                <label class="grid gap-0.5 font-semibold"
                    >What is one of them called? <Input class="font-normal" maxlength={40} required bind:value={given.label} /></label
                >
                <label class="grid gap-0.5 font-semibold"
                    >And several of them? <Input class="font-normal" maxlength={40} required bind:value={given.plural} /></label
                >
                <div class="flex gap-2">
                    <button class="btn go">Create it</button>
                    <button type="button" class="btn quiet" onclick={() => (making = false)}>Not now</button>
                </div>
            </form>
        {:else if type && chosen !== null}
            {#key `${type.name} ${chosen} ${type.version}`}
                <FieldEditor
                    {type}
                    {field}
                    ondone={(name) => void session.refreshSchema().then(() => (chosen = name))}
                    onretire={() => field && void retire(field.name, field.label)}
                />
            {/key}
        {:else}
            <div class="empty">
                <h2>What does a {type ? within(type.label) : say('record')} say?</h2>
                <p>Choose a field to change it, or add one.</p>
                <button type="button" class="btn mt-3" onclick={() => (chosen = '')}>Add a field</button>
            </div>
        {/if}
    </section>
</div>
