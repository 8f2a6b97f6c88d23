<script lang="ts">
    import { createQuery, keepPreviousData, useQueryClient } from '@tanstack/svelte-query';
    import { onDestroy } from 'svelte';
    import { api, ask, said } from '../api/client';
    import { go } from '../router';
    import { beginRule } from '../state/newRule';
    import { lists, places } from '../state/places';
    import { session } from '../state/session.svelte';
    import { toasts } from '../state/toasts.svelte';
    import { takesFocus } from './focus';
    import { within } from '../state/words';

    /* Finds records, rules, people, views and things to do, by what they are called. */
    let { onclose }: { onclose: () => void } = $props();
    type Command = { label: string; to: string; act?: () => Promise<void> };
    type Result = Command & { hint: string; group: string };
    const MOST_OF_EACH = 6;
    const uid = $props.id();
    let typed = $state('');
    let at = $state(0);
    // Whoever closes it without going anywhere is back where they were.
    const before = document.activeElement;
    onDestroy(() => before instanceof HTMLElement && before.isConnected && before.focus());

    /** Of one letter nobody is asked. */
    const isAsked = $derived(typed.trim().length > 1);
    const client = useQueryClient();
    const found = createQuery(() => ({
        queryKey: ['find', typed],
        enabled: isAsked,
        queryFn: ({ signal }) => ask(api.GET('/api/find', { params: { query: { text: typed } }, signal })),
        placeholderData: keepPreviousData,
    }));
    const rules = createQuery(() => ({ queryKey: ['rules'], queryFn: () => ask(api.GET('/api/rules')) }));
    const types = $derived(session.schema?.types ?? []);
    const screens = $derived([
        ...places().flatMap((place) => (place.name === 'records' ? lists() : [place])),
        { label: 'Your profile and API tokens', to: '/profile' },
    ]);
    const commands = $derived([
        ...types
            .filter((type) => session.may('create', type.name))
            .flatMap((type) => [
                { label: `New ${within(type.label)}`, to: `/records/${type.name}/new` },
                { label: `Import ${within(type.plural)}`, to: `/records/${type.name}/import` },
            ]),
        ...types
            .filter(() => session.me?.mayEditRules)
            .map((type) => ({
                label: `New rule for ${within(type.plural)}`,
                to: `/rules?new=${type.name}`,
                act: async () => {
                    await beginRule(type.name);
                    await client.invalidateQueries({ queryKey: ['rules'] });
                },
            })),
        ...types
            .filter((type) => type.stage)
            .map((type) => ({ label: `Board of ${within(type.plural)}`, to: `/records/${type.name}?layout=board` })),
    ]);
    const results = $derived.by((): Result[] => {
        const words = typed.trim().toLowerCase().split(/\s+/).filter(Boolean);
        const fits = (label: string) => words.every((word) => label.toLowerCase().includes(word));
        const some = (group: string, hint: string, all: Command[], always = false): Result[] =>
            words.length || always
                ? all
                      .filter((one) => fits(one.label))
                      .sort((one, other) => rank(one.label) - rank(other.label))
                      .slice(0, words.length ? MOST_OF_EACH : undefined)
                      .map((one) => ({ ...one, group, hint }))
                : [];
        const rank = (label: string) => (label.toLowerCase().startsWith(words[0] ?? '') ? 0 : 1);
        const people = session.people
            .filter((person) => person.active)
            .map((person) => ({ label: person.name, to: `/setup/people?person=${person.id}` }));
        return [
            ...some('Go to', '', screens, true),
            ...some('Do', '', commands),
            ...some(
                'Views',
                '',
                (isAsked ? (found.data?.views ?? []) : []).map((view) => ({
                    label: view.name,
                    to: `/records/${view.type}?view=${view.id}`,
                })),
            ),
            ...(isAsked ? (found.data?.records ?? []) : []).map((record) => ({
                label: record.title,
                to: `/records/${record.type}/${record.id}`,
                hint: record.number,
                group: 'Records',
            })),
            ...some(
                'Rules',
                '',
                (rules.data ?? []).map((rule) => ({ label: rule.name, to: `/rules/${rule.id}` })),
            ),
            ...some('People', '', people),
        ];
    });
    const nearly = $derived(isAsked ? (found.data?.nearly ?? '') : '');

    // Whoever types and presses Enter faster than answers come gets what they typed, not what stood there before.
    const isLoading = $derived(rules.isPending || (isAsked && (found.isPending || found.isPlaceholderData)));
    let isEager = $state(false);
    $effect(() => {
        if (isEager && !isLoading) open(at);
    });

    function open(index: number) {
        isEager = false;
        const result = results[index];
        if (!result) return;
        onclose();
        if (result.act) result.act().catch((thrown: unknown) => toasts.complain(said(thrown)));
        else go(result.to);
    }

    let list = $state<HTMLElement>();
    function key(event: KeyboardEvent) {
        if (event.key === 'ArrowDown') at = Math.min(results.length - 1, at + 1);
        else if (event.key === 'ArrowUp') at = Math.max(0, at - 1);
        else if (event.key === 'Enter') isLoading ? (isEager = true) : open(at);
        else if (event.key === 'Escape') onclose();
        else return;
        event.preventDefault();
        list?.querySelector(`[data-index="${at}"]`)?.scrollIntoView({ block: 'nearest' });
    }
</script>

<div class="fixed inset-0 z-50 bg-veil" onpointerdown={(event) => event.target === event.currentTarget && onclose()} role="presentation">
    <div class="finder" role="dialog" aria-label="Find or go to anything">
        <input
            class="w-full bg-transparent px-5 py-4 text-[15px] outline-none"
            placeholder="A number, a name, a screen, something to do…"
            aria-label="Find or go to anything"
            bind:value={typed}
            oninput={() => ([at, isEager] = [0, false])}
            onkeydown={key}
            role="combobox"
            aria-expanded="true"
            aria-controls="{uid}-options"
            aria-activedescendant={results[at] ? `${uid}-${at}` : undefined}
            use:takesFocus
        />
        {#if nearly && results.some((one) => one.group === 'Records')}<p class="mini border-t border-ruled px-5 py-1" role="status">
                Nothing is called “{typed.trim()}”; these are called “{nearly}”.
            </p>{/if}
        <div
            bind:this={list}
            id="{uid}-options"
            class="max-h-[420px] overflow-auto border-t border-ruled py-1"
            role="listbox"
            aria-label="What is found"
        >
            {#each results as result, index (`${result.group} ${result.to}`)}
                {#if result.group !== results[index - 1]?.group}<div class="px-5 pt-2 pb-0.5 text-[11px] font-semibold text-ink-3">
                        {result.group}
                    </div>{/if}
                <button
                    type="button"
                    id="{uid}-{index}"
                    class="flex w-full items-center px-5 py-1.5 text-left {index === at ? 'bg-iris-wash' : ''}"
                    role="option"
                    tabindex="-1"
                    aria-selected={index === at}
                    data-index={index}
                    onpointermove={() => (at = index)}
                    onclick={() => open(index)}
                >
                    <span class="min-w-0 truncate">{result.label}</span><span class="figures mini ml-auto pl-3">{result.hint}</span>
                </button>
            {:else}
                <p class="px-5 py-3 text-ink-3">{found.isFetching ? 'Looking…' : `Nothing is called “${typed}”.`}</p>
            {/each}
        </div>
    </div>
</div>
