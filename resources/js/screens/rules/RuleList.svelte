<script lang="ts">
    import Broken from '../../parts/Broken.svelte';
    import { createQuery, useQueryClient } from '@tanstack/svelte-query';
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
    import ImportRule from './ImportRule.svelte';
    import { counted } from '../../state/words';

    crumbs.set({ label: 'Rules' });
    const client = useQueryClient();
    const rules = createQuery(() => ({ queryKey: ['rules'], queryFn: () => ask(api.GET('/api/rules')) }));
    let choosing = $state<HTMLElement | null>(null);
    let importing = $state(false);
    const groups = $derived.by(() => {
        const byType = new Map<string, Resources['RuleSummary'][]>();
        for (const rule of rules.data ?? []) byType.set(rule.on, [...(byType.get(rule.on) ?? []), rule]);
        return [...byType.entries()];
    });
    const inForce = $derived((rules.data ?? []).filter((rule) => rule.status === 'in_force').length);

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
        if (!event.altKey || !['ArrowUp', 'ArrowDown'].includes(event.key) || !session.has('put_in_force')) return;
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
        <div class="scroll">
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
                            <a
                                class="line hover:bg-lit"
                                class:lifted={dragged === rule.id}
                                href="/rules/{rule.id}"
                                data-rule={rule.id}
                                draggable={session.has('put_in_force') ? 'true' : 'false'}
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
                                <div class="b flex items-center gap-6">
                                    <div class="min-w-0 flex-1">
                                        <div class="font-semibold">
                                            {rule.name}
                                            {#if rule.eitherOr}<span class="chip ml-1" title="Of this set only the first that matches fires"
                                                    >either/or: {rule.eitherOr}</span
                                                >{/if}
                                            {#if rule.hasDraft && rule.page}<span class="mini ml-2 font-normal"
                                                    >a draft of page {rule.page + 1} is being written</span
                                                >{/if}
                                        </div>
                                        {#if rule.broken}<div class="note-wrong">
                                                Does nothing until it is corrected: {rule.broken}
                                            </div>{/if}
                                        <div
                                            class="truncate text-[12.5px] text-ink-3 max-[640px]:line-clamp-2 max-[640px]:whitespace-normal"
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
                            {#snippet failed()}<Broken what="rule" />{/snippet}
                        </svelte:boundary>
                    {/each}
                </div>
            {/each}
        </div>
        {#if session.me?.mayEditRules}<div class="keys shrink-0">
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
