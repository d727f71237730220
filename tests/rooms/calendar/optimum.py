"""The same plan asked of CP-SAT (OR-Tools): starts within the windows, changes of canvas and wells by a circuit, minutes late in all."""

from itertools import pairwise

from ortools.sat.python import cp_model

from yarrow_lane.calendar.jobs import Job
from yarrow_lane.calendar.laying import due_minute
from yarrow_lane.calendar.own_time import OwnTime
from yarrow_lane.calendar.windows import GRID, Windows


def optimum(jobs: list[Job], windows: Windows, own: OwnTime, hint: list[list[int]] | None = None, seconds: float = 60):
    """Status, minutes late in the best plan found, and the bound below which there is none. Stints that need daylight are refused."""
    model = cp_model.CpModel()
    horizon = windows.end[-1] // GRID
    walls, open_until = [], 0
    for begin, end in zip(windows.begin, windows.end, strict=True):
        if begin > open_until:
            walls.append(model.new_fixed_size_interval_var(open_until // GRID, (begin - open_until) // GRID, ""))
        open_until = end
    all_, starts = [], []
    for n, job in enumerate(jobs):
        assert not any(s.daylight for s in job.stints)
        row = [model.new_int_var(0, horizon - s.minutes // GRID, f"s{n}_{k}") for k, s in enumerate(job.stints)]
        for k, s in enumerate(job.stints):
            for before, lag in s.needs:
                model.add(row[k] >= row[before] + -(-(job.stints[before].minutes + lag) // GRID))
            if s.minutes:
                all_.append((n, k, row[k], s.minutes // GRID, s.palette))
        starts.append(row)
    model.add_no_overlap([model.new_fixed_size_interval_var(v, d, "") for _, _, v, d, _ in all_] + walls)
    ancestors: dict[tuple[int, int], set[int]] = {}
    for n, job in enumerate(jobs):
        for k, s in enumerate(job.stints):
            ancestors[n, k] = {a for before, _ in s.needs for a in (before, *ancestors[n, before])}
    following = {}
    if hint:
        order = sorted(range(len(all_)), key=lambda x: hint[all_[x][0]][all_[x][1]])
        following = dict(pairwise(order))
    arcs = []
    for x, (nx, kx, vx, dx, px) in enumerate(all_):
        first, last = model.new_bool_var(""), model.new_bool_var("")
        arcs += [(0, x + 1, first), (x + 1, 0, last)]
        for y, (ny, ky, vy, _, py) in enumerate(all_):
            if x == y or (nx == ny and ky in ancestors[nx, kx]):
                continue
            arc = model.new_bool_var("")
            arcs.append((x + 1, y + 1, arc))
            change = own.canvas if nx != ny else 0 if px == py or min(px, py) < 0 else own.palette
            model.add(vy >= vx + dx + change // GRID).only_enforce_if(arc)
            if hint:
                model.add_hint(arc, following.get(x) == y)
    model.add_circuit(arcs)
    late = []
    for n, job in enumerate(jobs):
        due = due_minute(job, windows)
        t = model.new_int_var(0, 10**6, "")
        for k, s in enumerate(job.stints):
            model.add(t >= starts[n][k] + (s.minutes - due) // GRID)
        late.append(t)
        if hint:
            for k, v in enumerate(starts[n]):
                model.add_hint(v, hint[n][k] // GRID)
    model.minimize(sum(late))
    solver = cp_model.CpSolver()
    solver.parameters.max_time_in_seconds = seconds
    solver.parameters.num_workers = 2
    solver.parameters.cp_model_probing_level = 0
    solver.parameters.symmetry_level = 0
    status = solver.solve(model)
    return solver.status_name(status), solver.objective_value * GRID, solver.best_objective_bound * GRID
