/** A table to try it with: six plots of a made-up meadow, counts of individuals. */
export const EXAMPLE = `plot\tVellorna alata\tSenecorra discoidea\tCrepessa hirsuta\tCarpessa rubra\tMirelda caprina\tAlvena palus\tEuphorra lactea\tOssaria nana
Lang Meadow 1\t14\t3\t1\t0\t0\t2\t0\t0
Lang Meadow 2\t9\t0\t2\t1\t0\t6\t0\t0
Lang Meadow 3\t21\t1\t0\t0\t1\t1\t0\t0
Lang Meadow 4\t4\t2\t5\t0\t0\t8\t1\t0
Lang Meadow 5\t11\t0\t0\t2\t0\t3\t0\t1
Lang Meadow 6\t7\t4\t3\t0\t0\t5\t0\t0
`;

/** Two parents and five plants of a made-up slack: lengths in millimetres. */
export const PARENTS = `plant\tgroup\tpetiole\tblade\tteeth
Lang 1\tfirst\t9\t42\t11
Lang 2\tfirst\t11\t48\t12
Lang 3\tfirst\t10\t45\t10
Lang 4\tfirst\t12\t44\t13
Kell 1\tsecond\t34\t88\t24
Kell 2\tsecond\t40\t80\t27
Kell 3\tsecond\t37\t92\t25
Kell 4\tsecond\t31\t85\t22
slack 1\tstand\t20\t62\t17
slack 2\tstand\t13\t50\t13
slack 3\tstand\t33\t84\t23
slack 4\tstand\t22\t70\t18
slack 5\tstand\t10\t\t11
`;
