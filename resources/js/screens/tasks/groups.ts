import type { Resources } from '../../api/client';

type Task = Resources['TaskResource'];
type Week = Resources['WorkingWeekResource'];

/** Where open tasks stand: by when they are due, as the person's working calendar has it. */
export type Group = { key: string; label: string; tone: string; tasks: Task[]; due?: string };

const of = (task: Task, week: Week, now: Date) => {
    const due = task.dueAt ? Date.parse(task.dueAt) : Infinity;
    if (due < now.getTime()) return 'late';
    return due < Date.parse(week.todayEnds) ? 'today' : due < Date.parse(week.weekEnds) ? 'week' : 'later';
};

/** All of them, also those in which nothing stands: a task can be carried there. */
export function grouped(tasks: Task[], week: Week, now: Date): Group[] {
    return [
        { key: 'late', label: 'Late', tone: 'madder' },
        { key: 'today', label: 'Today', tone: 'marigold', due: week.dueToday },
        { key: 'week', label: 'This week', tone: 'iris', due: week.dueThisWeek },
        { key: 'later', label: 'Later, or at no set time', tone: 'harbor', due: week.dueNextWeek },
    ].map((group) => ({ ...group, tasks: tasks.filter((task) => of(task, week, now) === group.key) }));
}
