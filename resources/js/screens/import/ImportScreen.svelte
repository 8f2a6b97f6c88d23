<script lang="ts">
    import ProgressBar from '../../parts/ProgressBar.svelte';
    import { dropped } from '../../parts/dropped';
    import { inFigures } from '../../state/numbers';
    import { createQuery, useQueryClient } from '@tanstack/svelte-query';
    import { searchParams } from 'sv-router';
    import { api, ask, Refusal, said, type Resources } from '../../api/client';
    import FileButton from '../../parts/fields/FileButton.svelte';
    import { route } from '../../router';
    import { crumbs } from '../../state/crumbs.svelte';
    import { moment } from '../../state/moments';
    import { session } from '../../state/session.svelte';
    import ImportColumns from './ImportColumns.svelte';
    import ImportOutcome from './ImportOutcome.svelte';
    import { send } from './send';
    import { say, within } from '../../state/words';

    /* A file becomes records: what its columns are for on the left, what would come and what came of it on the right. */
    /** How far a file has come, in words. */
    const stateOf: Record<Resources['BulkResource']['status'], string> = {
        draft: 'not begun',
        trying: 'being tried',
        tried: say('tried'),
        waiting: 'about to begin',
        running: 'under way',
        stopped: say('stopped'),
        done: 'brought in',
        undoing: 'being taken back',
        undone: 'taken back',
    };
    const client = useQueryClient();
    const AT_WORK = ['trying', 'waiting', 'running', 'undoing'];
    const typeName = $derived(String(route.params.type));
    const type = $derived(session.schema?.types.find((candidate) => candidate.name === typeName));
    $effect(() =>
        crumbs.set(
            { label: 'Records', to: `/records/${typeName}` },
            { label: type?.plural ?? 'Not found', to: `/records/${typeName}` },
            { label: 'Import' },
        ),
    );
    const id = $derived(Number(searchParams.get('job') ?? 0));
    const now = createQuery(() => ({
        queryKey: ['import', id],
        enabled: id > 0,
        queryFn: () => ask(api.GET('/api/imports/{id}', { params: { path: { id } } })),
        refetchInterval: (query) => (AT_WORK.includes(query.state.data?.job.status ?? '') ? 500 : false),
    }));
    const file = $derived(id > 0 ? now.data : undefined);
    const earlier = createQuery(() => ({ queryKey: ['bulk'], enabled: id === 0, queryFn: () => ask(api.GET('/api/bulk')) }));
    const imports = $derived((earlier.data ?? []).filter((job) => job.kind === 'import' && job.recordType === typeName && job.total > 0));

    let sending = $state<number | null>(null);
    let problem = $state('');
    let refusal = $state.raw<Refusal | null>(null);
    let over = $state(false);

    async function take(chosen: File) {
        problem = '';
        sending = 0;
        try {
            const read = await send(typeName, chosen, (share) => (sending = share));
            client.setQueryData(['import', read.job.id], read);
            searchParams.set('job', String(read.job.id));
        } catch (thrown) {
            problem = said(thrown);
        }
        sending = null;
    }

    type Plan = { mapping: Record<string, string>; key: string | null; mode: Resources['ImportResource']['mode'] };
    async function attempt({ mapping, key, mode }: Plan, values: Resources['ImportValueResource'][]) {
        refusal = null;
        problem = '';
        try {
            client.setQueryData(
                ['import', id],
                await ask(api.POST('/api/imports/{id}/try', { params: { path: { id } }, body: { mapping, key, mode, values } })),
            );
        } catch (thrown) {
            if (thrown instanceof Refusal) refusal = thrown;
            problem = said(thrown);
        }
    }
    /** As it was tried last. */
    const tried = ({ columns, key, mode }: Resources['ImportResource']): Plan => ({
        mapping: Object.fromEntries(columns.filter((column) => column.field).map((column) => [column.place, column.field ?? ''])),
        key,
        mode,
    });
    const written = $derived.by(() => {
        if (!file) return '';
        const parts = file.delimiter === '\t' ? 'tabs' : `“${file.delimiter}”`;
        return `${inFigures(file.job.total)} rows, ${file.encoding}, parted by ${parts}`;
    });
</script>

{#if !type}
    <div class="spread"><section class="leaf solo"><div class="empty"><h2>There are no such records.</h2></div></section></div>
{:else}
    <div class="spread grid-cols-[minmax(0,1fr)] min-[1024px]:grid-cols-[minmax(0,6fr)_minmax(0,5fr)]">
        <section class="leaf left">
            <header class="flex items-start gap-3">
                <div class="min-w-0 flex-1">
                    <h1>Import {within(type.plural)}</h1>
                    <p class="sub">
                        {#if file && file.columns.length}{file.name}: {written}
                        {:else}A table in CSV, a workbook (.xlsx) or cards (.vcf). It is tried before anything is saved.{/if}
                    </p>
                </div>
                {#if id > 0}<button type="button" class="btn" onclick={() => (searchParams.delete('job'), (problem = ''))}
                        >Another file</button
                    >{/if}
            </header>
            {#if file?.columns.length}
                {#key file.job.id}
                    <ImportColumns
                        {type}
                        {file}
                        {refusal}
                        {problem}
                        ontry={(mapping, key, mode) => attempt({ mapping, key, mode }, file.values)}
                    />
                {/key}
            {:else if id > 0 && now.isError}
                <div class="empty">
                    <h2>It cannot be shown.</h2>
                    <p>{said(now.error)}</p>
                </div>
            {:else}
                <!-- svelte-ignore a11y_no_static_element_interactions -->
                <div
                    class="m-7 grid place-items-center gap-3 rounded-xl border-2 border-dashed p-12 text-center {over
                        ? 'border-iris bg-iris-wash'
                        : 'border-edge'}"
                    {...dropped(
                        (is) => (over = is),
                        (event) => {
                            const file = event.dataTransfer?.files[0];
                            if (file) void take(file);
                        },
                    )}
                >
                    {#if sending !== null}
                        <p aria-live="polite">Sending… {Math.round(sending * 100)} %</p>
                        <ProgressBar share={sending} label="Sending" class="w-64" />
                    {:else}
                        <FileButton says="Choose a file" accept=".csv,.tsv,.txt,.xlsx,.vcf,.vcard,text/csv,text/vcard" onchoose={take} />
                        <p class="mini">or drop it here · at most 50 MB and 500,000 rows · its first row names the columns</p>
                    {/if}
                    {#if problem}<p class="callout bad" role="alert">{problem}</p>{/if}
                </div>
            {/if}
        </section>
        <section class="leaf right">
            {#if file && file.job.status !== 'draft'}
                <ImportOutcome {type} {file} ontry={(values) => attempt(tried(file), values)} />
            {:else}
                <header>
                    <h2 class="title text-[21px]!">{file ? 'What would come of it' : 'Earlier imports'}</h2>
                </header>
                <div class="scroll px-6 py-3 text-[13px]">
                    {#if file}<p class="text-ink-2">
                            Say what each column is for, then have all rows tried. What is wrong is shown here by row and field, and which
                            rules would answer.
                        </p>
                    {:else}
                        {#each imports as job (job.id)}
                            <a
                                class="grid grid-cols-[104px_1fr_auto] gap-3 border-b border-ruled py-2 hover:text-iris"
                                href="/records/{typeName}/import?job={job.id}"
                                ><span class="figures mini">{moment(job.at)}</span><span
                                    >{inFigures(job.saved)} of {inFigures(job.total)} rows</span
                                ><span class="mini">{stateOf[job.status]}</span></a
                            >
                        {:else}<p class="mini">Nothing has been brought in yet.</p>{/each}
                    {/if}
                </div>
            {/if}
        </section>
    </div>
{/if}
