<script lang="ts">
    import Broken from '../../parts/Broken.svelte';
    import { createQuery, useQueryClient } from '@tanstack/svelte-query';
    import { Select } from 'flowbite-svelte';
    import { api, ask, said, type Resources } from '../../api/client';
    import Bars from '../../parts/Bars.svelte';
    import Choose from '../../parts/Choose.svelte';
    import Floating from '../../parts/Floating.svelte';
    import Stamp from '../../parts/Stamp.svelte';
    import { STATUS } from '../../parts/status';
    import { beginRule } from '../../state/newRule';
    import { crumbs } from '../../state/crumbs.svelte';
    import { session } from '../../state/session.svelte';
    import { toasts } from '../../state/toasts.svelte';
    import { tick } from 'svelte';
    import SearchField from '../../parts/fields/SearchField.svelte';
    import ImportRule from './ImportRule.svelte';
    import RuleSwitch from './RuleSwitch.svelte';
    import { counted } from '../../state/words';

    crumbs.set({ label: 'Rules' });
    const client = useQueryClient();
    const rules = createQuery(() => ({ queryKey: ['rules'], queryFn: () => ask(api.GET('/api/rules')) }));
    let choosing = $state<HTMLElement | null>(null);
    let importing = $state(false);
    const NOTHING = { search: '', type: '', status: '' };
    let wanted = $state({ ...NOTHING });
    const isNarrowed = $derived(Object.values(wanted).some((value) => value !== ''));
    /** Every word is found in the name, in what it is for, or in what it says. */
    const isWanted = (rule: Resources['RuleSummary']) => {
        const said = `${rule.name} ${rule.purpose} ${rule.aloud} ${rule.eitherOr}`.toLowerCase();
        const words = wanted.search.toLowerCase().split(/\s+/);
        const status = wanted.status === '' || (wanted.status === 'draft' ? rule.hasDraft : rule.status === wanted.status);
        return status && (wanted.type === '' || rule.on === wanted.type) && words.every((word) => said.includes(word));
    };
    const shown = $derived((rules.data ?? []).filter(isWanted));
    const groups = $derived.by(() => {
        const byType = new Map<string, Resources['RuleSummary'][]>();
        for (const rule of shown) byType.set(rule.on, [...(byType.get(rule.on) ?? []), rule]);
        return [...byType.entries()];
    });
    const inForce = $derived((rules.data ?? []).filter((rule) => rule.status === 'in_force').length);

    /** Where all of a type are shown: of some of them nobody sees between which others one is put. */
    const mayArrange = $derived(session.has('put_in_force') && wanted.search === '' && wanted.status === '');
    let dragged = $state<number | null>(null);

    async function arrange(type: string, ids: number[]) {
        try {
            client.setQueryData(['rules'], await ask(api.POST('/api/rules/order', { body: { recordType: type, rules: ids } })));
        } catch (thrown) {
            toasts.complain(said(thrown));
            void rules.refetch();
        }
    }

    function shift(type: string, list: Resources['RuleSummary'][], from: number, to: number) {
        if (to < 0 || to >= list.length || from === to) return Promise.resolve();
        const ids = list.map((rule) => rule.id);
        ids.splice(to, 0, ...ids.splice(from, 1));
        return arrange(type, ids);
    }

    async function key(event: KeyboardEvent, type: string, list: Resources['RuleSummary'][], index: number) {
        if (!event.altKey || !['ArrowUp', 'ArrowDown'].includes(event.key) || !mayArrange) return;
        event.preventDefault();
        const id = list[index]?.id;
        await shift(type, list, index, index + (event.key === 'ArrowUp' ? -1 : 1));
        await tick();
        document.querySelector<HTMLElement>(`[data-rule="${id}"]`)?.focus();
    }

    async function start(type: string | undefined) {
        if (!type) return;
        choosing = null;
        try {
            await beginRule(type);
            await client.invalidateQueries({ queryKey: ['rules'] });
        } catch (thrown) {
            toasts.complain(said(thrown));
        }
    }
</script>

<div class="spread">
    <section class="leaf solo">
        <header class="flex items-start gap-3">
            <div>
                <h1>Rules</h1>
                <p class="sub">
                    {rules.data
                        ? `${counted(inForce, ['# rule in force', '# rules in force'])}, ${rules.data.length} in all`
                        : 'Reading the rules…'}
                </p>
            </div>
            {#if session.me?.mayEditRules}
                <button type="button" class="btn ml-auto" onclick={() => (importing = true)}>Import</button>
                <button type="button" class="btn go" onclick={(event) => (choosing = choosing ? null : event.currentTarget)}
                    >New rule</button
                >
            {/if}
        </header>
        {#if rules.data?.length}
            <div class="rule-filter" role="group" aria-label="Which rules">
                <div class="max-[700px]:col-span-full">
                    <SearchField
                        label="Search names, purposes and what rules say"
                        value={wanted.search}
                        onsearch={(text) => (wanted.search = text)}
                    />
                </div>
                <Select placeholder="" aria-label="Record type" bind:value={wanted.type}>
                    <option value="">any record type</option>
                    {#each session.schema?.types ?? [] as one (one.name)}<option value={one.name}>{one.plural}</option>{/each}
                </Select>
                <Select placeholder="" aria-label="State" bind:value={wanted.status}>
                    <option value="">any state</option>
                    <option value="in_force">in force</option>
                    <option value="paused">paused</option>
                    <option value="draft">with a draft</option>
                    <option value="retired">retired</option>
                </Select>
                {#if isNarrowed}<button type="button" class="link" onclick={() => (wanted = { ...NOTHING })}>all</button>{/if}
            </div>
        {/if}
        <div class="scroll">
            {#if rules.data?.length && shown.length === 0}
                <div class="empty">
                    <h2>No rule is like that.</h2>
                    <p>Search for other words, or show all of them.</p>
                </div>
            {/if}
            {#if rules.data?.length === 0}
                <div class="empty">
                    <h2>There are no rules yet.</h2>
                    <p>A rule says what happens by itself when a record changes. Start with “New rule”.</p>
                </div>
            {/if}
            {#each groups as [type, list] (type)}
                <div class="margined min-h-0!">
                    <div class="line min-h-0! bg-lit">
                        <div class="m h"></div>
                        <div class="b py-1.5! text-[12px]! font-semibold text-ink-3">{session.type(type).plural}</div>
                    </div>
                    {#each list as rule, index (rule.id)}
                        <svelte:boundary>
                            <div class="relative grid">
                                {#if session.has('put_in_force')}
                                    <div class="absolute top-1/2 right-7 z-10 -translate-y-1/2 max-[640px]:right-4">
                                        <RuleSwitch {rule} />
                                    </div>
                                {/if}
                                <a
                                    class="line hover:bg-lit"
                                    class:lifted={dragged === rule.id}
                                    href="/rules/{rule.id}"
                                    data-rule={rule.id}
                                    draggable={mayArrange ? 'true' : 'false'}
                                    ondragstart={() => (dragged = rule.id)}
                                    ondragend={() => (dragged = null)}
                                    ondragover={(event) => {
                                        if (list.some((other) => other.id === dragged)) event.preventDefault();
                                    }}
                                    ondrop={(event) => {
                                        event.preventDefault();
                                        void shift(
                                            type,
                                            list,
                                            list.findIndex((other) => other.id === dragged),
                                            index,
                                        );
                                    }}
                                    onkeydown={(event) => void key(event, type, list, index)}
                                >
                                    <div class="m">
                                        <Stamp tone={STATUS[rule.status]?.tone ?? 'harbor'}>{STATUS[rule.status]?.label}</Stamp>
                                    </div>
                                    <div class="b flex items-center gap-6 pr-20!">
                                        <div class="min-w-0 flex-1 max-[640px]:pr-14">
                                            <div class="font-semibold">
                                                {rule.name}
                                                {#if rule.eitherOr}<span
                                                        class="chip ml-1"
                                                        title="Of this set only the first that matches fires"
                                                        >either/or: {rule.eitherOr}</span
                                                    >{/if}
                                                {#if rule.hasDraft && rule.page}<span class="mini ml-2 font-normal"
                                                        >a draft of page {rule.page + 1} is being written</span
                                                    >{/if}
                                            </div>
                                            {#if rule.broken}<div class="note-wrong">
                                                    Does nothing until it is corrected: {rule.broken}
                                                </div>{/if}
                                            {#if rule.purpose}<div class="truncate text-[12.5px] text-ink-2">{rule.purpose}</div>{/if}
                                            <div
                                                class="truncate text-[12.5px] text-ink-3 max-[640px]:line-clamp-2
                                                    max-[640px]:whitespace-normal"
                                            >
                                                {rule.aloud}
                                            </div>
                                            <div class="figures text-[12px] text-ink-2 min-[641px]:hidden">{rule.entries} in 30 d</div>
                                        </div>
                                        <div class="w-28 shrink-0 max-[640px]:hidden">
                                            <Bars values={rule.days} label="Firings on each of the last 14 days" />
                                        </div>
                                        <div
                                            class="figures w-24 shrink-0 text-right text-[12px] text-ink-2 max-[640px]:hidden"
                                            title="Firings in 30 days"
                                        >
                                            {rule.entries}&nbsp;<span class="text-ink-3">in 30 d</span>
                                        </div>
                                    </div>
                                </a>
                            </div>
                            {#snippet failed()}<Broken what="rule" />{/snippet}
                        </svelte:boundary>
                    {/each}
                </div>
            {/each}
        </div>
        {#if mayArrange}<div class="keys shrink-0">
                <span>Rules answer in this order: drag one, or <kbd>Alt ↑↓</kbd></span>
            </div>{/if}
    </section>
</div>

{#if choosing}
    <Floating anchor={choosing} label="New rule" onclose={() => (choosing = null)}>
        <Choose
            title="A rule about"
            options={(session.schema?.types ?? []).map((type) => ({ key: type.name, label: type.plural }))}
            onchoose={([type]) => start(type)}
            onclose={() => (choosing = null)}
        />
    </Floating>
{/if}
{#if importing}<ImportRule onclose={() => (importing = false)} />{/if}
