<script lang="ts">
    import { Checkbox, Input, Select } from 'flowbite-svelte';
    import { createQuery, useQueryClient } from '@tanstack/svelte-query';
    import { api, ask, type Resources } from '../../api/client';
    import { crumbs } from '../../state/crumbs.svelte';
    import { moment } from '../../state/moments';
    import { session } from '../../state/session.svelte';
    import HookArrivals from './HookArrivals.svelte';
    import HookTrial from './HookTrial.svelte';
    import { Kept, type Draft } from '../library/kept.svelte';
    import KeptFrame from '../library/KeptFrame.svelte';
    import { counted, within } from '../../state/words';

    type Hook = Draft &
        Pick<Resources['HookResource'], 'recordType' | 'takes' | 'starts' | 'mayCreate' | 'isOpen' | 'url' | 'secret'> & {
            knownBy: string;
        };

    crumbs.set({ label: 'Setup', to: '/setup' }, { label: 'Hooks' });
    const hooks = createQuery(() => ({ queryKey: ['hooks'], queryFn: () => ask(api.GET('/api/hooks')), refetchInterval: 15_000 }));
    const kept = new Kept<Hook>(useQueryClient(), 'hooks');

    const open = (one: Resources['HookResource']) =>
        kept.open({
            ...one,
            knownBy: one.knownBy ?? '',
            takes: one.takes.map((taken) => ({ ...taken })),
            starts: one.starts.map((start) => ({ ...start })),
        });
    const begin = () =>
        kept.open({
            id: null,
            version: 0,
            name: '',
            recordType: session.schema?.types[0]?.name ?? '',
            takes: [{ path: '', field: '' }],
            starts: [],
            knownBy: '',
            mayCreate: true,
            isOpen: true,
            url: '',
            secret: null,
        });
    const fields = (type: string) => session.type(type).fields.filter((field) => !field.system && !field.formula);

    const choices = (type: string, name: string) => fields(type).find((field) => field.name === name)?.choices ?? [];

    async function keep(freshSecret = false) {
        const told = await kept.keep(
            ({ id, version, name, recordType, takes, starts, knownBy, mayCreate, isOpen }) => {
                const body = { name, recordType, takes, starts, knownBy, mayCreate, isOpen, freshSecret };
                return id === null
                    ? ask(api.POST('/api/hooks', { body }))
                    : ask(api.PUT('/api/hooks/{id}', { params: { path: { id } }, body: { version, ...body } }));
            },
            ({ name }) => `“${name}” is saved.`,
        );
        // Its secret is told this once, so it stays open.
        if (told?.secret) open(told);
    }
</script>

<KeptFrame
    {kept}
    title="Hooks"
    sub="Addresses to which other systems post what becomes a record."
    items={hooks.data}
    fresh="New"
    onnew={begin}
    onopen={open}
    onkeep={() => void keep()}
    ondelete={() => void kept.delete((id) => ask(api.DELETE('/api/hooks/{id}', { params: { path: { id } } })))}
    none={[
        'No other system posts here yet.',
        'Open an address, say which member goes into which field, and give the other side its secret.',
    ]}
    idle={[
        'What arrives is a save like any other.',
        'Choose a hook to see what came, to try something, and to mend what could not be taken.',
    ]}
    loses="The address is closed for good, and the list of what arrived goes with it. The records stay."
>
    {#snippet row(one)}
        <span class="flex items-baseline gap-3">
            <b class="min-w-0 flex-1 font-semibold">{one.name}</b>
            {#if one.refused}<span class="figures text-[12px] text-madder">{one.refused} not accepted</span>{/if}
            {#if !one.isOpen}<span class="mini">closed</span>{/if}
        </span>
        <span class="mini block"
            >{one.mayCreate
                ? `makes ${within(session.type(one.recordType).plural)}`
                : `changes ${within(session.type(one.recordType).plural)}`}{one.knownBy
                ? `, known by ${fields(one.recordType).find((field) => field.name === one.knownBy)?.label ?? one.knownBy}`
                : ''}</span
        >
        {#if one.turnedAwayAt}<span class="block text-marigold"
                >{counted(one.turnedAway, ['# post not rightly signed', '# posts not rightly signed'])}, last {moment(
                    one.turnedAwayAt,
                )}</span
            >{/if}
    {/snippet}
    {#snippet besides(edited)}
        <Select placeholder="" class="max-w-44" aria-label="Becomes" bind:value={edited.recordType} disabled={edited.id !== null}
            >{#each session.schema?.types ?? [] as type (type.name)}<option value={type.name}>{type.plural}</option>{/each}</Select
        >
    {/snippet}
    {#snippet editor(edited)}
        {#if edited.secret}
            <div class="callout mb-4" role="status">
                <p>The secret is shown this once. Give it to the other side: what it posts is signed with it (Standard Webhooks).</p>
                <p class="figures mt-1 break-all select-all">{edited.secret}</p>
            </div>
        {/if}
        {#if edited.url}
            <p class="mini">POST JSON to</p>
            <p class="figures mb-3 break-all select-all">{edited.url}</p>
        {/if}
        <h2 class="text-[16px]">What goes where</h2>
        {#each edited.takes as taken, index (taken)}
            <div class="mt-1.5 grid grid-cols-[1fr_20px_1fr_auto] items-center gap-2">
                <Input
                    class="figures"
                    aria-label="Member {index + 1}"
                    placeholder="customer.name"
                    bind:value={taken.path}
                    aria-invalid={kept.problem(`/takes/${index}/path`) ? true : undefined}
                />
                <span class="text-center text-ink-3" aria-hidden="true">→</span>
                <Select
                    placeholder=""
                    aria-label="Its field {index + 1}"
                    bind:value={taken.field}
                    aria-invalid={kept.problem(`/takes/${index}/field`) ? true : undefined}
                    ><option value="">Choose a field</option>
                    {#each fields(edited.recordType) as field (field.name)}<option value={field.name}>{field.label}</option>{/each}</Select
                >
                <button type="button" class="btn quiet" aria-label="Remove member {index + 1}" onclick={() => edited.takes.splice(index, 1)}
                    >×</button
                >
            </div>
        {/each}
        <button type="button" class="btn mt-2" onclick={() => edited.takes.push({ path: '', field: '' })}>Add a member</button>

        <h2 class="mt-6 text-[16px]">Which record</h2>
        <div class="mt-1.5 flex flex-wrap items-center gap-2">
            <label for="known">It is known by</label>
            <Select
                placeholder=""
                id="known"
                class="w-52"
                bind:value={edited.knownBy}
                aria-invalid={kept.problem('/knownBy') ? true : undefined}
                ><option value="">nothing: each is a new one</option>
                {#each edited.takes.filter((one) => one.field) as one (one)}<option value={one.field}
                        >{fields(edited.recordType).find((field) => field.name === one.field)?.label}</option
                    >{/each}</Select
            >
            <label class="flex items-center gap-1.5"><Checkbox bind:checked={edited.mayCreate} /> a new one may be made</label>
            <label class="flex items-center gap-1.5"><Checkbox bind:checked={edited.isOpen} /> open</label>
        </div>
        {#if edited.mayCreate}
            <p class="mini mt-4">A new one also begins with</p>
            {#each edited.starts as start, index (start)}
                <div class="mt-1.5 grid grid-cols-[1fr_20px_1fr_auto] items-center gap-2">
                    <Select
                        placeholder=""
                        aria-label="Beginning field {index + 1}"
                        bind:value={start.field}
                        aria-invalid={kept.problem(`/starts/${index}/field`) ? true : undefined}
                        ><option value="">Choose a field</option>
                        {#each fields(edited.recordType) as field (field.name)}<option value={field.name}>{field.label}</option
                            >{/each}</Select
                    >
                    <span class="text-center text-ink-3" aria-hidden="true">=</span>
                    {#if choices(edited.recordType, start.field).length}
                        <Select placeholder="" aria-label="Beginning value {index + 1}" bind:value={start.value}>
                            {#each choices(edited.recordType, start.field) as choice (choice.value)}
                                <option value={choice.value}>{choice.label}</option>
                            {/each}
                        </Select>
                    {:else}<Input aria-label="Beginning value {index + 1}" bind:value={start.value} />{/if}
                    <button
                        type="button"
                        class="btn quiet"
                        aria-label="Remove beginning {index + 1}"
                        onclick={() => edited.starts.splice(index, 1)}>×</button
                    >
                </div>
            {/each}
            <button type="button" class="btn mt-2" onclick={() => edited.starts.push({ field: '', value: '' })}>Add a beginning</button>
        {/if}
        {#if edited.id !== null}
            {#key edited.id}
                <HookTrial hook={edited.id} members={edited.takes.map((taken) => taken.path)} />
                <HookArrivals hook={edited.id} />
            {/key}
            <button type="button" class="btn mt-6" onclick={() => void keep(true)}>Give it another secret</button>
        {/if}
    {/snippet}
</KeptFrame>
