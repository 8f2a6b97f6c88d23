<script lang="ts">
    import { createQuery } from '@tanstack/svelte-query';
    import { searchParams } from 'sv-router';
    import SearchField from '../../parts/fields/SearchField.svelte';
    import { crumbs } from '../../state/crumbs.svelte';
    import { isWide } from '../../state/places';
    import ApiTrial from './ApiTrial.svelte';
    import { operationsOf, type Description, type Operation } from './operations';

    /* All that programs can ask, with what each takes and gives, and a place to try it as whoever is signed in. */
    crumbs.set({ label: 'Setup', to: '/setup' }, { label: 'Interface for programs' });
    const description = createQuery(() => ({
        queryKey: ['openapi'],
        staleTime: Infinity,
        queryFn: async () => (await (await fetch('/api/openapi.json')).json()) as Description,
    }));
    const all = $derived(description.data ? operationsOf(description.data) : []);
    let search = $state('');
    const words = $derived(search.toLowerCase().split(/\s+/).filter(Boolean));
    const found = $derived(
        all.filter((one) => {
            const text = `${one.method} ${one.path} ${one.id} ${one.tag} ${one.description}`.toLowerCase();
            return words.every((word) => text.includes(word));
        }),
    );
    const tags = $derived([...new Set(found.map((one) => one.tag))]);
    const groups = $derived(tags.map((tag): [string, Operation[]] => [tag, found.filter((one) => one.tag === tag)]));
    const chosen = $derived(all.find((one) => one.id === searchParams.get('operation')) ?? (isWide() ? found[0] : undefined));
    const tones: Record<string, string> = { GET: 'harbor', POST: 'fern', PUT: 'marigold', PATCH: 'marigold', DELETE: 'madder' };
</script>

<div class="spread grid-cols-[minmax(0,5fr)_minmax(0,6fr)]">
    <section class="leaf left">
        <header class="flex flex-wrap items-start gap-3">
            <h1>Interface for programs</h1>
            <span class="ml-auto w-52"><SearchField label="Search" value={search} onsearch={(text) => (search = text)} /></span>
            <p class="sub -mt-2 basis-full">
                Whatever the screens do, programs can do: with a token from <a class="link" href="/profile">your profile</a>, and with your
                rights. <a class="link" href="/api/openapi.json" download="openapi.json">The description</a> is in OpenAPI 3.1.
            </p>
        </header>
        <div class="scroll">
            {#each groups as [tag, operations] (tag)}
                <h2 class="bg-lit px-7 py-1.5 text-[12px]! text-ink-2">{tag}</h2>
                {#each operations as one (one.id)}
                    <a
                        class="grid grid-cols-[58px_1fr] items-baseline gap-2 border-b border-ruled px-7 py-1.5 text-[13px] hover:bg-lit"
                        class:bg-picked={chosen?.id === one.id}
                        href="/setup/api?operation={one.id}"
                        aria-current={chosen?.id === one.id ? 'true' : undefined}
                    >
                        <span class="figures text-[11.5px] font-semibold tone-{tones[one.method]}">{one.method}</span>
                        <span class="figures min-w-0 text-[12.5px] break-all">{one.path.replace('/api/', '')}</span>
                    </a>
                {/each}
            {:else}
                <div class="empty"><h2>{description.data ? 'Nothing has that name.' : 'Reading…'}</h2></div>
            {/each}
        </div>
    </section>
    <section class="leaf right">
        {#if chosen}{#key chosen.id}<ApiTrial operation={chosen} tone={tones[chosen.method] ?? 'harbor'} />{/key}
        {/if}
    </section>
</div>
