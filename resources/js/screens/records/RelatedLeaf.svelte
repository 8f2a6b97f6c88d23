<script lang="ts">
    import { createQueries, useQueryClient } from '@tanstack/svelte-query';
    import { Plus } from '@lucide/svelte';
    import { api, ask, said, type Resources } from '../../api/client';
    import Shown from '../../parts/Shown.svelte';
    import { session } from '../../state/session.svelte';
    import NewRelated from './NewRelated.svelte';
    import { countedOf, within } from '../../state/words';

    /* The records that name this one, by kind; another is added without leaving. */
    type Relation = { type: Resources['TypeResource']; field: Resources['FieldResource'] };
    let { type, record }: { type: Resources['TypeResource']; record: Resources['RecordResource'] } = $props();
    const SHOWN = 8;
    const row =
        'grid grid-cols-[76px_minmax(0,1fr)_auto] items-baseline gap-x-3 border-b border-ruled py-1.5 hover:text-iris ' +
        'max-[700px]:grid-cols-[64px_minmax(0,1fr)]';
    const client = useQueryClient();
    const relations = $derived<Relation[]>(
        (session.schema?.types ?? []).flatMap((other) =>
            other.fields
                .filter((field) => field.type === 'reference' && field.target === type.name && !field.system)
                .map((field) => ({ type: other, field })),
        ),
    );
    const filter = (relation: Relation) =>
        JSON.stringify({ kind: 'all', of: [{ kind: 'is', field: relation.field.name, value: record.number }] });
    const pages = createQueries(() => ({
        queries: relations.map((relation) => ({
            queryKey: ['records', relation.type.name, 'of', relation.field.name, record.id],
            queryFn: () =>
                ask(
                    api.GET('/api/records/{type}', {
                        params: {
                            path: { type: relation.type.name },
                            query: { filter: filter(relation), sort: '-number', perPage: SHOWN, total: 'yes' as const },
                        },
                    }),
                ),
        })),
    }));
    let adding = $state.raw<Relation | null>(null);
    /** What says most in a line: where it stands, and two facts that are not its name nor the record at hand. */
    const facts = (relation: Relation) =>
        relation.type.columns
            .map((name) => relation.type.fields.find((field) => field.name === name))
            .filter((field): field is Resources['FieldResource'] => field !== undefined)
            .filter((field) => field.name !== relation.type.title && field.name !== relation.field.name && field.target !== type.name)
            .slice(0, 3);
    const heading = (relation: Relation) =>
        relations.filter((one) => one.type === relation.type).length > 1
            ? `${relation.type.plural}, as ${relation.field.label}`
            : relation.type.plural;
    const all = (relation: Relation) => `/records/${relation.type.name}?filter=${encodeURIComponent(filter(relation))}`;
</script>

<div class="scroll px-6 py-4 text-[13px]">
    {#each relations as relation, index (`${relation.type.name} ${relation.field.name}`)}
        {@const page = pages[index]}
        <section class={index ? 'mt-6' : ''} aria-label={heading(relation)}>
            <div class="flex items-center gap-2">
                <h2>{heading(relation)}</h2>
                {#if page?.data?.total}<a class="figures mini hover:text-iris" href={all(relation)}>{page.data.total}</a>{/if}
                {#if session.may('create', relation.type.name)}
                    <button type="button" class="btn ml-auto" onclick={() => (adding = relation)}
                        ><Plus size={13} class="mr-1 inline" />New {within(relation.type.label)}</button
                    >
                {/if}
            </div>
            {#if page?.isError}<p class="mini mt-1">{said(page.error)}</p>{/if}
            {#each page?.data?.rows ?? [] as one (one.id)}
                <a class={row} href="/records/{one.type}/{one.id}">
                    <span class="figures mini">{one.number}</span>
                    <span class="truncate font-semibold">{one.title}</span>
                    <span class="flex flex-wrap items-baseline gap-x-3 text-[12.5px] text-ink-2 max-[700px]:col-start-2">
                        {#each facts(relation) as field (field.name)}
                            {#if one.shown[field.name]}<Shown record={one} {field} />{/if}
                        {/each}
                    </span>
                </a>
            {:else}{#if page?.data}<p class="mini mt-1">No {within(relation.type.label)} yet.</p>{/if}{/each}
            {#if (page?.data?.total ?? 0) > SHOWN}
                <a class="link mt-1 inline-block text-[12.5px]" href={all(relation)}
                    >All {countedOf(page?.data?.total ?? 0, relation.type)}</a
                >
            {/if}
        </section>
    {:else}
        <p class="text-ink-2">No other kind of record names a {within(type.label)}.</p>
    {/each}
</div>

{#if adding}
    <NewRelated
        type={adding.type}
        field={adding.field}
        id={record.id}
        title={record.title}
        onclose={() => (adding = null)}
        onmade={() => void client.invalidateQueries()}
    />
{/if}
